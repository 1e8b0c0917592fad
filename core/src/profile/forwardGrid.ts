import { WHITE_ICC } from '../colour/whitePoints.ts';
import { xyzRowsToLab } from '../colour/xyzToLab.ts';
import type { Xyz } from '../colour/xyz.ts';

/** A regular table of media-relative Lab over the device cube; the last channel varies fastest. */
export interface ForwardGrid {
  readonly channels: number;
  readonly points: number;
  /** Row-major node × 3, Lab of the ICC white, paper at 100, 0, 0. */
  readonly lab: Float64Array;
  /** Where the nodes of each channel lie: its device value at each of them, rising from 0 to 1; evenly where absent. */
  readonly nodes?: readonly Float64Array[];
}

/** Device values of all nodes of a regular grid, row-major node × channel. */
export function gridDeviceValues(
  channels: number,
  points: number,
  places?: readonly Float64Array[],
): Float64Array {
  const nodes = points ** channels;
  const out = new Float64Array(nodes * channels);
  for (let node = 0; node < nodes; node++) {
    let rest = node;
    for (let channel = channels - 1; channel >= 0; channel--) {
      const at = rest % points;
      out[node * channels + channel] = places?.[channel][at] ?? at / (points - 1);
      rest = Math.floor(rest / points);
    }
  }
  return out;
}

/**
 * Fills the grid from a model.
 * @param modelXyz XYZ (Y = 100) of device rows.
 * @param nodes where the nodes lie, evenly where absent; see `ForwardGrid`.
 * @param paperXyz what the model gives for bare stock; colours are scaled by it, so that paper is exactly white.
 */
export function buildForwardGrid(
  channels: number,
  points: number,
  modelXyz: (device: Float64Array, out: Float64Array) => void,
  paperXyz: Xyz,
  nodes?: readonly Float64Array[],
): ForwardGrid {
  const device = gridDeviceValues(channels, points, nodes);
  const lab = new Float64Array((device.length / channels) * 3);
  modelXyz(device, lab);
  xyzRowsToRelativeLab(lab, paperXyz);
  return nodes === undefined ? { channels, points, lab } : { channels, points, lab, nodes };
}

/** Makes media-relative Lab of XYZ rows, in place: scaled so that the paper is exactly white. */
export function xyzRowsToRelativeLab(rows: Float64Array, paperXyz: ArrayLike<number>): void {
  for (let i = 0; i < rows.length; i++) rows[i] = Math.max(0, (rows[i] / paperXyz[i % 3]) * WHITE_ICC[i % 3]);
  xyzRowsToLab(rows, WHITE_ICC, rows);
}
