import { WATCH_PLACES, controlWedge } from '../charts/controlWedge.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { xyzToLab } from '../colour/xyzToLab.ts';
import type { Lab } from '../colour/lab.ts';
import { deviceKey } from '../conformity/aims.ts';
import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';

/** A patch of the watch wedge. */
export interface WatchPatch {
  readonly name: string;
  /** C, M, Y, K, 0..1. */
  readonly device: readonly number[];
}

/** The fourteen patches of the watch wedge, in its order. */
export const WATCH_PATCHES: readonly WatchPatch[] = (() => {
  const { device, names } = controlWedge('watch');
  const first = new Map<string, WatchPatch>();
  names.forEach((name, row) => {
    if (!first.has(name)) first.set(name, { name, device: [...device.subarray(4 * row, 4 * row + 4)] });
  });
  return [...first.values()];
})();

/** Least number of readings that a zero reading is the mean of. */
export const ZERO_READINGS = 3;

/** Values that a check keeps: patch, place across the width, X Y Z. */
export const WATCH_VALUES = WATCH_PATCHES.length * WATCH_PLACES * 3;

/**
 * XYZ of the watch's patches at each place across the width, from a reading of the watch wedge.
 * @param device row-major × 4, 0..1, as the wedge asks (not what a conversion made of it); `xyz` row-major × 3, Y = 100.
 * @param across place of each row across the width, 0..1.
 * @returns patch-major, then place, then X Y Z.
 */
export function watchFigures(
  device: Float64Array,
  xyz: Float64Array,
  across: ArrayLike<number>,
): Result<Float64Array> {
  const out = new Float64Array(WATCH_VALUES);
  const counts = new Float64Array(WATCH_PATCHES.length * WATCH_PLACES);
  const byKey = new Map(WATCH_PATCHES.map((patch, index) => [deviceKey(patch.device, 0), index] as const));
  for (let row = 0; row < device.length / 4; row++) {
    const patch = byKey.get(deviceKey(device, row));
    if (patch === undefined) continue;
    const place = Math.min(WATCH_PLACES - 1, Math.floor(across[row] * WATCH_PLACES));
    const cell = patch * WATCH_PLACES + place;
    counts[cell]++;
    for (let axis = 0; axis < 3; axis++) out[3 * cell + axis] += xyz[3 * row + axis];
  }
  const missing = counts.indexOf(0);
  if (missing >= 0)
    return failure({
      code: 'watch.patch',
      path: 'reading',
      expected: 'all patches of the watch wedge at the left, in the middle and at the right',
      found: `none of ${WATCH_PATCHES[Math.floor(missing / WATCH_PLACES)].name} at place ${(missing % WATCH_PLACES) + 1}`,
    });
  counts.forEach((count, cell) => {
    for (let axis = 0; axis < 3; axis++) out[3 * cell + axis] /= count;
  });
  return success(out);
}

/** Mean of several checks: the zero reading; NaN at a place that one of them does not tell. */
export function meanFigures(checks: readonly Float64Array[]): Float64Array {
  return Float64Array.from(
    { length: WATCH_VALUES },
    (_, i) => checks.reduce((sum, figures) => sum + figures[i], 0) / checks.length,
  );
}

/** Figures as they are kept and sent: JSON has no NaN. */
export const keptFigures = (figures: Float64Array): (number | null)[] =>
  Array.from(figures, (value) => (Number.isNaN(value) ? null : value));
export const figuresOfKept = (kept: readonly (number | null)[]): Float64Array =>
  Float64Array.from(kept, (value) => value ?? NaN);

/** Lab of a patch, the mean of its places. */
export function watchLab(figures: Float64Array, patch: number): Lab {
  const xyz = meanOfPlaces(figures, patch);
  return xyzToLab([xyz[0], xyz[1], xyz[2]], WHITE_D50_MEASURED);
}

/** XYZ of a patch, the mean of the places that tell it. */
export function meanOfPlaces(figures: Float64Array, patch: number): Float64Array {
  const xyz = new Float64Array(3);
  let told = 0;
  for (let place = 0; place < WATCH_PLACES; place++) {
    const cell = 3 * (patch * WATCH_PLACES + place);
    if (Number.isNaN(figures[cell])) continue;
    told++;
    for (let axis = 0; axis < 3; axis++) xyz[axis] += figures[cell + axis];
  }
  return xyz.map((sum) => sum / told);
}
