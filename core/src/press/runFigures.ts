import { WATCH_PLACES } from '../charts/controlWedge.ts';
import { eightBit } from '../charts/namedPatches.ts';
import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import { WATCH_PATCHES, WATCH_VALUES } from '../watch/watchFigures.ts';
import type { BarReading } from './barReading.ts';
import type { ColourBar } from './colourBar.ts';
import { PROCESS_INKS } from '../tone/toneMeasure.ts';
import { isProcessUnit, unitOf } from './pressUnit.ts';
import type { PressUnit } from './pressUnit.ts';

/** Least sheets of production that a run is a check of a watch by. */
export const RUN_CHECK_SHEETS = 8;

/**
 * Figures of a watch from the sheets of a run: the mean of each patch over its sheets. A bar has the solids in every zone
 * and the rest here and there, so a place across the width that has none of a patch is told as NaN.
 * @returns patch-major, then place, then X Y Z, as `watchFigures` gives them.
 */
export function runFigures(
  bar: ColourBar,
  units: readonly PressUnit[],
  readings: readonly Pick<BarReading, 'xyz'>[],
): Result<Float64Array> {
  const out = new Float64Array(WATCH_VALUES);
  const counts = new Uint32Array(WATCH_PATCHES.length * WATCH_PLACES);
  bar.patches.forEach(({ kind, zone, tones }, at) => {
    if (kind.startsWith('slur')) return;
    const patch = WATCH_PATCHES.findIndex(({ device }) => asksFor(units, tones, device));
    if (patch < 0) return;
    const cell = patch * WATCH_PLACES + Math.floor((zone * WATCH_PLACES) / bar.zones);
    for (const { xyz } of readings) {
      if (!Number.isFinite(xyz[3 * at + 1])) continue;
      counts[cell]++;
      for (let axis = 0; axis < 3; axis++) out[3 * cell + axis] += xyz[3 * at + axis];
    }
  });
  for (let cell = 0; cell < counts.length; cell++)
    for (let axis = 0; axis < 3; axis++)
      out[3 * cell + axis] = counts[cell] === 0 ? NaN : out[3 * cell + axis] / counts[cell];
  const missing = WATCH_PATCHES.findIndex((_, patch) =>
    counts.subarray(patch * WATCH_PLACES, (patch + 1) * WATCH_PLACES).every((count) => count === 0),
  );
  if (missing >= 0)
    return failure({
      code: 'run.patch',
      path: 'run',
      expected: 'all patches that a watch looks at, with their colours',
      found: `none of ${WATCH_PATCHES[missing].name}`,
    });
  return success(out);
}

/** Whether a patch of the bar asks the plates for what a patch of the watch asks for, to the step of a plate. */
function asksFor(units: readonly PressUnit[], tones: readonly number[], device: readonly number[]): boolean {
  const has = (ink: string): number => tones[unitOf(units, ink)] ?? 0;
  const spots = units.some((unit, at) => !isProcessUnit(unit) && tones[at] > 0);
  return (
    !spots && PROCESS_INKS.every((ink, channel) => Math.abs(eightBit(has(ink)) - device[channel]) < 1e-9)
  );
}
