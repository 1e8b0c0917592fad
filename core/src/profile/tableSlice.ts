import { compileLut } from '../icc/compileLut.ts';
import { deviceToLab, labToDevice } from '../icc/profileTransform.ts';
import type { RenderingIntent } from '../icc/profileTransform.ts';
import type { IccProfile } from '../icc/iccTypes.ts';
import { labToScreenSignal } from '../proof/screen.ts';
import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import { chain, ofStages, transformed } from '../transform/transform.ts';

/** Tables of an output profile by their intents. */
export const TABLE_INTENTS: readonly RenderingIntent[] = ['perceptual', 'relative', 'saturation'];
/** Half of the width of a slice through a table from Lab, a* and b*. */
export const SLICE_AB = 100;

/** A table cut flat; rows run downwards, columns to the right. */
export interface TableSlice {
  readonly side: number;
  /** What the table gives at each place, side² × outputs: the signal of a screen, or device values, 0..1. */
  readonly values: Float64Array;
  readonly outputs: number;
}

const missing = (signature: string): Result<TableSlice> =>
  failure({ code: 'profile.tables', path: signature, expected: 'a table', found: 'none' });

/** A cut over two channels of a table from a device. */
export interface DeviceCut {
  /** Channel that grows to the right, and one that grows downwards. */
  readonly across: number;
  readonly down: number;
  /** Values 0..1 of all channels; those of the two are not looked at. */
  readonly fixed: readonly number[];
  readonly side: number;
}

/** Values of a device over a cut, row-major. */
function cutValues({ across, down, fixed, side }: DeviceCut, inputs: number): Float64Array {
  const device = new Float64Array(side * side * inputs);
  for (let row = 0, at = 0; row < side; row++)
    for (let column = 0; column < side; column++, at += inputs) {
      for (let channel = 0; channel < inputs; channel++) device[at + channel] = fixed[channel] ?? 0;
      device[at + across] = column / (side - 1);
      device[at + down] = row / (side - 1);
    }
  return device;
}

/** The values that a device link gives over two channels of the device that it comes from. */
export function linkSlice(link: IccProfile, cut: DeviceCut): Result<TableSlice> {
  const table = link.tags.get('A2B0');
  if (table === undefined || !('inputs' in table)) return missing('A2B0');
  const { inputs, outputs, stride, run } = compileLut(table, 'tetrahedral');
  const values = transformed(ofStages({ inputs, outputs, stride, stages: [run] }), cutValues(cut, inputs));
  return success({ side: cut.side, outputs, values });
}

/**
 * The colours of a table from the device over two of its channels, relative to the paper, on a screen.
 */
export function deviceSlice(
  profile: IccProfile,
  intent: RenderingIntent,
  cut: DeviceCut,
): Result<TableSlice> {
  const signature = `A2B${TABLE_INTENTS.indexOf(intent)}`;
  if (!profile.tags.has(signature)) return missing(signature);
  const toLab = deviceToLab(profile, intent);
  if (!toLab.ok) return toLab;
  const device = cutValues(cut, toLab.value.inputs);
  const values = transformed(chain(toLab.value, labToScreenSignal()), device);
  return success({ side: cut.side, outputs: 3, values });
}

/**
 * The device values of a table from Lab at one lightness: a* grows to the right, b* upwards, both within ±`SLICE_AB`.
 * @param lightness relative to the paper.
 */
export function labSlice(
  profile: IccProfile,
  intent: RenderingIntent,
  lightness: number,
  side: number,
): Result<TableSlice> {
  const signature = `B2A${TABLE_INTENTS.indexOf(intent)}`;
  if (!profile.tags.has(signature)) return missing(signature);
  const toDevice = labToDevice(profile, intent);
  if (!toDevice.ok) return toDevice;
  const lab = new Float64Array(side * side * 3);
  for (let row = 0, at = 0; row < side; row++)
    for (let column = 0; column < side; column++, at += 3)
      lab.set(
        [lightness, SLICE_AB * ((2 * column) / (side - 1) - 1), SLICE_AB * (1 - (2 * row) / (side - 1))],
        at,
      );
  return success({ side, outputs: toDevice.value.outputs, values: transformed(toDevice.value, lab) });
}
