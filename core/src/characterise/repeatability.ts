import { deltaE2000Of } from '../colour/deltaE2000.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { xyzRowsToLab } from '../colour/xyzToLab.ts';
import { summariseErrors } from '../numerics/statistics.ts';
import type { ErrorSummary } from '../numerics/statistics.ts';
import { mergeRepeats } from './mergeRepeats.ts';

/**
 * ΔE00 of repeated patches to the mean of their group; undefined without repeats. A mean of n readings hides part of
 * their spread, the factor √(n/(n−1)) restores it.
 * @param device row-major patch × channels.
 * @param xyz row-major patch × 3, Y = 100.
 */
export function repeatability(
  device: Float64Array,
  channels: number,
  xyz: Float64Array,
): ErrorSummary | undefined {
  const lab = new Float64Array(xyz.length);
  xyzRowsToLab(xyz, WHITE_D50_MEASURED, lab);
  const errors: number[] = [];
  for (const group of mergeRepeats(device, channels, xyz).sources) {
    if (group.length < 2) continue;
    const [l, a, b] = [0, 1, 2].map(
      (axis) => group.reduce((sum, row) => sum + lab[3 * row + axis], 0) / group.length,
    );
    const scale = Math.sqrt(group.length / (group.length - 1));
    for (const row of group)
      errors.push(scale * deltaE2000Of(l, a, b, lab[3 * row], lab[3 * row + 1], lab[3 * row + 2]));
  }
  return errors.length === 0 ? undefined : summariseErrors(errors);
}
