import { fitInkModel, inkModelLab } from '@melto/core/characterise/inkModel';
import { inkUncertainty } from '@melto/core/characterise/modelUncertainty';
import { chooseAddedPatches } from '@melto/core/charts/addedPatches';
import { makeCmykChart } from '@melto/core/charts/cmykChart';
import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { createRandom } from '@melto/core/numerics/random';
import { mean, summariseErrors } from '@melto/core/numerics/statistics';
import { cmykConditions, labOf, noisyXyz, unprinted } from './cmykConditions.ts';
import { otherDevices } from './otherDevices.ts';
import { printTable } from './table.ts';

const SEED = Number(process.env.SEED ?? 1);
const PATCHES = Number(process.env.PATCHES ?? 800);
const TOTAL_INK = 3;
const NOISE = 0.2;
const PROBES = 2500;
const ADDED = 100;
const CELL_LEAST = 8;

/** Whether a model knows where it errs, and what patches that are placed by it are worth beside random ones. */
export function errorMap(): void {
  const rows = [...otherDevices(SEED), ...cmykConditions()].map(({ name, truth }) => {
    const random = createRandom(1000 * SEED + PATCHES);
    const read = (values: Float64Array): Float64Array => noisyXyz(truth(values), NOISE, random);
    const { device } = makeCmykChart(PATCHES, SEED, TOTAL_INK);
    const xyz = read(device);
    const model = fitInkModel(device, 4, xyz, SEED);
    const uncertainty = inkUncertainty(model);
    const probes = unprinted(PROBES, TOTAL_INK, random);
    const expected = labOf(truth(probes));
    const errors = (fitted: typeof model): Float64Array => {
      const out = new Float64Array(expected.length);
      inkModelLab(fitted, probes, out);
      return deltaE2000Rows(expected, out);
    };
    const found = errors(model);
    const claimed = found.map((_, i) => uncertainty.deltaEAt(probes.subarray(4 * i, 4 * i + 4)));
    const order = [...claimed.keys()].sort((a, b) => claimed[a] - claimed[b]);
    const tenth = Math.floor(PROBES / 10);
    const errorOf = (of: readonly number[]): number => mean(of.map((i) => found[i]));
    const cells = cellMeans(expected, found);
    const claims = cellMeans(expected, claimed);
    const keys = [...cells.keys()];
    const p95With = (added: Float64Array): string => {
      const more = fitInkModel(
        Float64Array.of(...device, ...added),
        4,
        Float64Array.of(...xyz, ...read(added)),
        SEED,
      );
      return percent(summariseErrors(errors(more)).p95 / summariseErrors(found).p95);
    };
    const chosen = chooseAddedPatches(uncertainty, 4, ADDED, TOTAL_INK, createRandom(SEED));
    return [
      name,
      rankCorrelation(claimed, found).toFixed(2),
      rankCorrelation(
        keys.map((key) => claims.get(key) ?? 0),
        keys.map((key) => cells.get(key) ?? 0),
      ).toFixed(2),
      (errorOf(order.slice(-tenth)) / errorOf(order.slice(0, tenth))).toFixed(2),
      mean(claimed).toFixed(3),
      mean(found).toFixed(3),
      p95With(Float64Array.from(chosen.flat())),
      p95With(unprinted(ADDED, TOTAL_INK, random)),
    ];
  });
  printTable(
    `Where the CMYK model errs, ${PATCHES} patches, seed ${SEED}: rank correlation of claim and truth`,
    ['device', 'points', 'cells', 'tenths', 'claimed', 'true', `95 % with ${ADDED}`, 'at random'],
    rows,
  );
}

const percent = (ratio: number): string => `${(100 * (ratio - 1)).toFixed(0)} %`;

/** Mean by band of lightness and sector of hue, as the map in a report. */
function cellMeans(lab: Float64Array, values: Float64Array): Map<number, number> {
  const cells = new Map<number, number[]>();
  values.forEach((value, i) => {
    const [l, a, b] = lab.subarray(3 * i, 3 * i + 3);
    const turn = Math.atan2(b, a) / (2 * Math.PI) + 1;
    const key = 13 * Math.floor(l / 20) + (Math.hypot(a, b) < 8 ? 0 : 1 + (Math.round(12 * turn) % 12));
    cells.set(key, [...(cells.get(key) ?? []), value]);
  });
  return new Map(
    [...cells].flatMap(([key, own]) => (own.length < CELL_LEAST ? [] : [[key, mean(own)] as const])),
  );
}

function rankCorrelation(a: ArrayLike<number>, b: ArrayLike<number>): number {
  const ranks = (values: ArrayLike<number>): number[] => {
    const out = new Array<number>(values.length);
    Array.from(values, (_, i) => i)
      .sort((x, y) => values[x] - values[y])
      .forEach((place, rank) => (out[place] = rank));
    return out;
  };
  const [x, y] = [ranks(a), ranks(b)];
  const middle = (x.length - 1) / 2;
  const sum = (f: (i: number) => number): number => x.reduce((total, _, i) => total + f(i), 0);
  return sum((i) => (x[i] - middle) * (y[i] - middle)) / sum((i) => (x[i] - middle) ** 2);
}
