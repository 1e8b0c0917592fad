import { patchXyz } from '../cgats/patchColours.ts';
import type { PatchSet } from '../cgats/patchSet.ts';
import { fitInks, inkModelLab } from '../characterise/inkModel.ts';
import { leastPatches } from '../characterise/leastPatches.ts';
import { mergeRepeats } from '../characterise/mergeRepeats.ts';
import { fitRgb, rgbModelLab } from '../characterise/rgbModel.ts';
import { channelCount, CMYK, drivenByLight, RGB, sameProcess } from '../device/process.ts';
import { xyzRange } from '../measured/colourRange.ts';
import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import type { Transform } from '../transform/transform.ts';
import { cornerBody } from './cornerBody.ts';
import { deviceSurface } from './deviceSurface.ts';
import { gamutBody } from './gamutBody.ts';
import type { MadeBody } from './madeBody.ts';

/** A chart shows a channel from none to full where its values come as near to both. */
const AS_GOOD_AS = 0.02;

/**
 * What a device prints by a reading of it or by an aim set: the surface of the model that its patches carry, inks as far
 * as its patches go; where they are too few, straight lines between its solids.
 * @param set RGB or CMYK device values with their colours.
 */
export function measuredBody(set: PatchSet, name: string): Result<MadeBody> {
  const { process, device } = set;
  const xyz = patchXyz(set);
  if (process === undefined || device === undefined || xyz === undefined)
    return failure({
      code: 'gamut.no-device-values',
      expected: 'device values with their colours: they tell which colours are the farthest that print',
      found: xyz === undefined ? 'no colours' : 'colours alone, which can be laid beside as points',
    });
  const isRgb = sameProcess(process, RGB);
  if (!isRgb && !sameProcess(process, CMYK))
    return failure({
      code: 'gamut.process',
      expected: 'RGB or CMYK; of other inks a reading does not tell which print together, their profile does',
      found: process.name,
    });
  const range = xyzRange(xyz);
  if (!range.ok) return range;
  const channels = channelCount(process);
  const merged = mergeRepeats(device, channels, xyz);
  const patches = merged.counts.length;
  if (patches < leastPatches(process)) {
    const corners = cornerBody(name, merged.device, merged.xyz, drivenByLight(process));
    return corners.ok
      ? success({ body: corners.value, white: 'paper', patches, cornersOnly: true })
      : corners;
  }
  const { least, most, totalInk } = reached(merged.device, channels);
  for (let channel = 0; channel < channels; channel++)
    if (least[channel] > AS_GOOD_AS || (isRgb && most[channel] < 1 - AS_GOOD_AS))
      return failure({
        code: 'gamut.range',
        path: `channel ${channel + 1}`,
        expected: 'patches from none to full',
        found: `${Math.round(100 * least[channel])} to ${Math.round(100 * most[channel])} %`,
      });
  const toLab = isRgb ? lightModel(device, xyz) : modelOfInks(device, channels, xyz);
  const limit = isRgb ? undefined : totalInk;
  const body = gamutBody(name, deviceSurface(toLab, limit, most));
  return success({ body, white: 'paper', totalInk: limit, patches });
}

function lightModel(device: Float64Array, xyz: Float64Array): Transform {
  const model = fitRgb(device, xyz);
  return { inputs: 3, outputs: 3, apply: (values, out) => rgbModelLab(model, values, out) };
}

function modelOfInks(device: Float64Array, channels: number, xyz: Float64Array): Transform {
  const model = fitInks(device, channels, xyz);
  return { inputs: channels, outputs: 3, apply: (values, out) => inkModelLab(model, values, out) };
}

/** Least and most of each channel, and the largest sum. */
function reached(
  device: Float64Array,
  channels: number,
): { readonly least: number[]; readonly most: number[]; readonly totalInk: number } {
  const least = new Array<number>(channels).fill(Infinity);
  const most = new Array<number>(channels).fill(0);
  let totalInk = 0;
  for (let row = 0; row < device.length; row += channels) {
    let sum = 0;
    for (let channel = 0; channel < channels; channel++) {
      const value = device[row + channel];
      least[channel] = Math.min(least[channel], value);
      most[channel] = Math.max(most[channel], value);
      sum += value;
    }
    totalInk = Math.max(totalInk, sum);
  }
  return { least, most, totalInk };
}
