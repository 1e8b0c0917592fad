import { aimsFor } from '../conformity/aims.ts';
import type { Aims } from '../conformity/aims.ts';
import { toneAims } from '../conformity/toneAims.ts';
import type { Lab } from '../colour/lab.ts';
import { measuredLabRows } from '../colour/measuredLabRows.ts';
import { tviAimOfPoints } from '../tone/tviAim.ts';
import { PROCESS_INKS } from '../tone/toneMeasure.ts';
import type { BarAims } from './barFigures.ts';
import type { BarPatch, ColourBar } from './colourBar.ts';
import type { PressUnit } from './pressUnit.ts';

/** What a run's spot colours are to be, by name. */
export type SpotAims = Readonly<Record<string, Lab>>;

/**
 * Aims of a colour bar (D50, 2°): of process inks from an aim set, as it gives, interpolates or completes them; of spot
 * solids from their list; of spot tints the tone on the plate itself, as ISO 20654 counts. Where nothing is told there is
 * none.
 */
export function pressAims(
  { patches }: ColourBar,
  units: readonly PressUnit[],
  aims: Aims,
  spots: SpotAims,
): BarAims {
  const tones = toneAims(aims);
  const lab = new Float64Array(3 * patches.length).fill(NaN);
  const tone = new Float64Array(patches.length).fill(NaN);
  const wanted = patches.map((patch) => processValues(patch, units));
  const known = wanted.flatMap((values, patch) => (values === undefined ? [] : [{ values, patch }]));
  const { xyz } = aimsFor(aims, Float64Array.from(known.flatMap(({ values }) => values)));
  const rows = measuredLabRows(xyz);
  known.forEach(({ patch }, row) => lab.set(rows.subarray(3 * row, 3 * row + 3), 3 * patch));
  patches.forEach(({ kind, tones: on }, patch) => {
    const inks = units.flatMap((_, unit) => (on[unit] > 0 ? [unit] : []));
    if (inks.length !== 1) return;
    const { ink } = units[inks[0]];
    const spot = spots[ink];
    if (kind === 'solid' && spot !== undefined) lab.set(spot, 3 * patch);
    if (kind !== 'tint') return;
    const plate = on[inks[0]];
    const channel = PROCESS_INKS.indexOf(ink);
    if (channel < 0) tone[patch] = plate;
    else if (tones.ok) tone[patch] = plate + tviAimOfPoints(tones.value[channel]).increase(plate);
  });
  return { lab, tone };
}

/** C, M, Y, K of a patch of process inks; none where a spot colour is in it, or lines that no aim set knows. */
function processValues({ kind, tones }: BarPatch, units: readonly PressUnit[]): number[] | undefined {
  if (kind === 'slur along' || kind === 'slur across') return undefined;
  const values = [0, 0, 0, 0];
  for (const [unit, tone] of tones.entries()) {
    if (tone === 0) continue;
    const channel = PROCESS_INKS.indexOf(units[unit].ink);
    if (channel < 0) return undefined;
    values[channel] = tone;
  }
  return values;
}
