import { designBar, patchesOf } from '@melto/core/press/colourBar';
import { bestDensity } from '@melto/core/press/bestDensity';
import { nextMove, USUAL_MOVES } from '@melto/core/press/nextMove';
import type { UnitMove, UnitSheet, ZoneAim } from '@melto/core/press/nextMove';
import { processUnit } from '@melto/core/press/pressUnit';
import { thicknessLine } from '@melto/core/press/thicknessLine';
import type { PatchLight } from '@melto/core/press/thicknessLine';
import { statusDensity } from '@melto/core/density/density';
import { deltaE2000 } from '@melto/core/colour/deltaE2000';
import { xyzToLab } from '@melto/core/colour/xyzToLab';
import type { Lab } from '@melto/core/colour/lab';
import { tableIlluminant } from '@melto/core/spectral/illuminant';
import { GRID_380_730_10 } from '@melto/core/spectral/spectralGrid';
import { spectrumToXyz } from '@melto/core/spectral/spectrumToXyz';
import { createXyzWeights } from '@melto/core/spectral/xyzWeights';
import { readPressSheet, zoneDensities } from '@melto/simulator/pressRun';
import type { KeyMove, SimulatedRun } from '@melto/simulator/pressRun';

const GRID = GRID_380_730_10;
const WEIGHTS = createXyzWeights(GRID, tableIlluminant('D50'), '2deg');
const UNITS = (['K', 'C', 'M', 'Y'] as const).map(processUnit);
const CHANNELS = [3, 0, 1, 2];
const designed = designBar(UNITS, { zones: 12, zoneMm: 32, patchMm: 5 });
if (!designed.ok) throw new Error('no bar');
const BAR = designed.value;
const PAPER = patchesOf(BAR, 'paper')[0];
const SOLIDS = UNITS.map((_, unit) => patchesOf(BAR, 'solid', unit));
const DENSITY = statusDensity(GRID, 'E');
const LIMITS = [5, 3.5, 3.5, 3.5];

const row = (spectra: Float64Array, at: number): Float64Array =>
  spectra.subarray(at * GRID.count, (at + 1) * GRID.count);
const labOf = (spectrum: Float64Array): Lab => xyzToLab(spectrumToXyz(WEIGHTS, spectrum), WEIGHTS.white);

const even = (seed: number, stock: SimulatedRun['stock']): SimulatedRun => ({
  ...{ device: 'osprey', stock, mode: '175 lpi', seed, bar: BAR, channels: CHANNELS, unevenStart: 0 },
});

/** Aims of the solids: the mean press. */
const aimsOf = (stock: SimulatedRun['stock']): Lab[] => {
  const still = readPressSheet({ ...even(0, stock) }, [], 0, 'M1', 'none');
  // Without unevenness the mean press prints, whatever the seed of its keys.
  return SOLIDS.map((rows) => labOf(row(still, rows[0])));
};

interface Told {
  /** Sheet that is the first within tolerance in truth. */
  readonly sheets: number;
  readonly moves: number;
  readonly wrong: number;
  /** Sheets after that, and how many of them were not left alone though all was within tolerance. */
  readonly quiet: number;
  readonly chased: number;
}

function follow(seed: number, stock: SimulatedRun['stock'], unevenStart: number, most: number): Told {
  const run: SimulatedRun = { ...even(seed, stock), unevenStart };
  const aims = aimsOf(stock);
  const made: KeyMove[] = [];
  const sheets: UnitSheet[][] = UNITS.map(() => []);
  let [count, wrong, quiet, chased, first] = [0, 0, 0, 0, Infinity];
  for (let sheet = 1; sheet <= most; sheet++) {
    const impression = 200 + (sheet - 1) * (USUAL_MOVES.settle + 10);
    const truth = readPressSheet(run, made, impression, 'M1', 'none');
    const inside = SOLIDS.every((rows, unit) =>
      rows.every((at) => deltaE2000(aims[unit], labOf(row(truth, at))) <= LIMITS[unit]),
    );
    if (inside) first = Math.min(first, sheet);
    const spectra = readPressSheet(run, made, impression);
    const settledTruth = UNITS.map((_, unit) => zoneDensities(run, made, unit, impression + 1e6));
    let moved = false;
    UNITS.forEach(({ filter }, unit) => {
      const solids = SOLIDS[unit].map((at) => row(spectra, at));
      const density = solids.map((solid) => DENSITY[filter](solid));
      sheets[unit].push({ impression, density });
      const patch = (light: Float64Array): PatchLight => ({ light, density: DENSITY[filter](light) });
      const line = thicknessLine(patch(row(spectra, PAPER)), solids.map(patch));
      const zoneAims = solids.map((solid, zone): ZoneAim => {
        const { change, within } = bestDensity(line, labOf, solid, aims[unit], deltaE2000, LIMITS[unit]);
        const now = density[zone];
        return { best: now + change, within: within && [now + within[0], now + within[1]] };
      });
      const mine: UnitMove[] = made.filter((move) => move.unit === unit);
      const advice = nextMove(sheets[unit], mine, zoneAims);
      if (advice.word !== 'move') return;
      moved = true;
      made.push({ unit, impression, changes: [...advice.changes] });
      advice.changes.forEach((change, zone) => {
        if (change === 0) return;
        count++;
        if (change * settledTruth[unit][zone] > 0) wrong++;
      });
    });
    if (inside) quiet++;
    if (inside && moved) chased++;
  }
  return { sheets: first, moves: count, wrong, quiet, chased };
}

const sum = (values: readonly number[]): number => values.reduce((total, value) => total + value, 0);
/** Make-readies from random starts, and presses that are to be left alone. */
export function press(): void {
  for (const [name, from] of [
    ['tried on', 1],
    ['unseen', 1001],
  ] as const)
    for (const stock of ['lantern-gloss-150', 'fenland-smooth-120'] as const) {
      const told = Array.from({ length: 20 }, (_, i) => follow(from + i, stock, 0.12, 8));
      const within = (most: number): number => told.filter(({ sheets }) => sheets <= most).length;
      const moves = sum(told.map((one) => one.moves));
      const quiet = Array.from({ length: 100 }, (_, i) => follow(from + 100 + i, stock, 0.03, 1));
      console.log(
        `${name}, ${stock}: all zones within tolerance at sheet 3 ${within(3)}, 4 ${within(4)}, 5 ${within(5)} of 20 (${told.map(({ sheets }) => sheets).join(' ')});`,
        `wrong way ${sum(told.map((one) => one.wrong))} of ${moves} moves;`,
        `within tolerance and yet moved: ${sum(told.map((one) => one.chased))} of ${sum(told.map((one) => one.quiet))} sheets of these runs,`,
        `${sum(quiet.map((one) => one.chased))} of ${sum(quiet.map((one) => one.quiet))} first sheets of even presses`,
      );
    }
}
