import { chartModel } from '../characterise/chartModel.ts';
import { repeatability } from '../characterise/repeatability.ts';
import { greyMagentaYellow } from '../balance/greyTriplet.ts';
import type { Lab } from '../colour/lab.ts';
import { labAt } from '../colour/labAt.ts';
import { measuredLabRows } from '../colour/measuredLabRows.ts';
import { srgbToLab } from '../colour/srgb.ts';
import { WHITE_D50_MEASURED, WHITE_ICC } from '../colour/whitePoints.ts';
import { labToXyz, xyzRowsToLab, xyzToLab } from '../colour/xyzToLab.ts';
import { inkSum } from '../icc/mostInk.ts';
import { REFERENCE_MEDIUM_BLACK } from '../icc/profileBlack.ts';
import { meanPaperXyz } from '../device/meanPaperXyz.ts';
import { channelCount, drivenByLight } from '../device/process.ts';
import type { Process } from '../device/process.ts';
import { bodyFrom, bodyVolume, commonGrey, gamutBody } from '../gamut/gamutBody.ts';
import { densityOverPaper } from '../gamut/gamutFigures.ts';
import type { RadialBoundary } from '../gamut/radialBoundary.ts';
import { deviceSurface } from '../gamut/deviceSurface.ts';
import { reachBeyond } from '../gamut/reach.ts';
import { mean } from '../numerics/statistics.ts';
import { pictureColours } from '../proof/pictureColours.ts';
import { SAMPLE_PICTURES, samplePicture } from '../proof/samplePicture.ts';
import type { SamplePicture } from '../proof/samplePicture.ts';
import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import type { Transform } from '../transform/transform.ts';

/** Side of the pictures that are looked at, and how many of their colours. */
const PICTURE_SIDE = 96;
const PICTURE_COLOURS = 400;
const GREY_STEPS = [0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9] as const;
/** Share of the paper's cast that greys lose towards the full scale (ISO/TS 10128). */
const CAST_LOST = 0.85;

/** What a chart tells of the stock it was printed on. */
export interface TrialFigures {
  /** Of the bare stock. */
  readonly white: Lab;
  /** Of the darkest patch, and its visual density above the stock. */
  readonly darkest: Lab;
  readonly density: number;
  /** Cubic ΔE*ab, with the stock. */
  readonly volume: number;
  /** Mean ΔCh of plain greys from those that follow the stock. */
  readonly greys: number;
  /** Mean ΔE00 of repeated patches to their mean; null without repeats. */
  readonly noise: number | null;
  /** How far the colours of each sample picture lie beyond what prints, ΔE00, mean by area. */
  readonly pictures: readonly { readonly name: SamplePicture; readonly lost: number }[];
}

/**
 * Figures of one chart on one stock, by which stocks are compared.
 * @param device row-major patch × channel, 0..1.
 * @param xyz row-major patch × 3, Y = 100 for a perfect reflector.
 */
export function trialFigures(
  process: Process,
  device: Float64Array,
  xyz: Float64Array,
): Result<TrialFigures> {
  const channels = channelCount(process);
  const paper = meanPaperXyz(process, device, xyz);
  if (paper === undefined)
    return failure({
      code: 'trial.bare',
      path: 'chart',
      expected: 'a patch of the bare stock',
      found: 'none',
    });
  const white = xyzToLab(paper, WHITE_D50_MEASURED);
  const model = chartModel(channels, device, xyz);
  const toLab: Transform = {
    inputs: channels,
    outputs: 3,
    apply: (rows, out) => xyzRowsToLab(model(rows), WHITE_D50_MEASURED, out),
  };
  const body = gamutBody(
    '',
    deviceSurface(toLab, drivenByLight(process) ? undefined : mostInk(device, channels)),
  );
  const grey = commonGrey([body]);
  if (grey === undefined)
    return failure({ code: 'trial.body', path: 'chart', expected: 'colours around a grey', found: 'none' });
  const boundary = bodyFrom(body, grey);
  const darkest = darkestOf(measuredLabRows(xyz));
  return success({
    ...{ white, darkest, density: densityOverPaper(darkest, white), volume: bodyVolume(boundary) },
    greys: greysOf(toLab, drivenByLight(process), white),
    noise: repeatability(device, channels, xyz)?.mean ?? null,
    pictures: SAMPLE_PICTURES.map((name) => ({ name, lost: lostOf(name, boundary, paper) })),
  });
}

function mostInk(device: Float64Array, channels: number): number {
  let most = 0;
  for (let row = 0; row < device.length / channels; row++)
    most = Math.max(most, inkSum(device, row, channels));
  return most;
}

function darkestOf(lab: Float64Array): Lab {
  let row = 0;
  for (let i = 1; i < lab.length / 3; i++) if (lab[3 * i] < lab[3 * row]) row = i;
  return labAt(lab, row);
}

/** Equal light, or the inks of the near-neutral scale: how far they are from the cast of the stock, which fades. */
function greysOf(toLab: Transform, light: boolean, white: Lab): number {
  const rows = GREY_STEPS.flatMap((tone) => {
    if (light) return [1 - tone, 1 - tone, 1 - tone];
    const other = greyMagentaYellow(tone);
    return [tone, other, other, ...Array<number>(toLab.inputs - 3).fill(0)];
  });
  const lab = new Float64Array(GREY_STEPS.length * 3);
  toLab.apply(rows, lab);
  return mean(
    GREY_STEPS.map((tone, i) => {
      const cast = 1 - CAST_LOST * tone;
      return Math.hypot(lab[3 * i + 1] - cast * white[1], lab[3 * i + 2] - cast * white[2]);
    }),
  );
}

/** What a picture loses: its white is brought to that of the stock, its black to that of a print of reference (ICC.1, perceptual). */
function lostOf(name: SamplePicture, boundary: RadialBoundary, paper: readonly number[]): number {
  const { values, shares } = pictureColours(
    samplePicture(name, PICTURE_SIDE, PICTURE_SIDE),
    3,
    PICTURE_COLOURS,
  );
  const lab = new Float64Array(3 * shares.length);
  for (let i = 0; i < shares.length; i++) {
    const xyz = labToXyz(srgbToLab(Array.from(values.subarray(3 * i, 3 * i + 3))), WHITE_ICC);
    const printed = xyz.map((value, axis) => {
      const least = REFERENCE_MEDIUM_BLACK[1] * paper[axis];
      return least + (value / WHITE_ICC[axis]) * (paper[axis] - least);
    });
    lab.set(xyzToLab([printed[0], printed[1], printed[2]], WHITE_D50_MEASURED), 3 * i);
  }
  const beyond = reachBeyond(lab, boundary);
  const all = shares.reduce((sum, share) => sum + share, 0);
  return shares.reduce((sum, share, i) => sum + share * beyond[i], 0) / all;
}
