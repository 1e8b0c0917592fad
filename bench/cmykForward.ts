import { fitInkModel, inkModelLab } from '@melto/core/characterise/inkModel';
import { makeCmykChart } from '@melto/core/charts/cmykChart';
import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { gatherRows } from '@melto/core/numerics/gatherRows';
import { createRandom, shuffle } from '@melto/core/numerics/random';
import { summariseErrors } from '@melto/core/numerics/statistics';
import type { ErrorSummary } from '@melto/core/numerics/statistics';
import { cmykConditions, labOf, noisyXyz, PUBLISHED, publishedSet, unprinted } from './cmykConditions.ts';
import { evaluatePolynomial, fitPolynomial } from './polynomial.ts';
import { printTable } from './table.ts';

const SEEDS = Number(process.env.SEEDS ?? 3);
const SIZES = [400, 800, 1500];
const TOTAL_INK = 3;
const NOISE = 0.2;
const PROBES = 20_000;

const figures = ({ mean, p95, largest }: ErrorSummary): string[] => [
  mean.toFixed(3),
  p95.toFixed(3),
  largest.toFixed(2),
];

/** Forward error of the CMYK model at values that were not printed. */
export function cmykForward(): void {
  const rows: string[][] = [];
  for (const { name, truth } of cmykConditions())
    for (const patches of SIZES)
      for (let seed = 1; seed <= SEEDS; seed++) {
        const random = createRandom(1000 * seed + patches);
        const { device } = makeCmykChart(patches, seed, TOTAL_INK);
        const clean = truth(device);
        const read = noisyXyz(clean, NOISE, random);
        const probes = unprinted(PROBES, TOTAL_INK, random);
        const expected = labOf(truth(probes));
        const started = performance.now();
        const model = fitInkModel(device, 4, read, seed);
        const seconds = (performance.now() - started) / 1000;
        const out = new Float64Array(expected.length);
        inkModelLab(model, probes, out);
        const polynomial = fitPolynomial(device, labOf(read), 4);
        const plain = new Float64Array(expected.length);
        evaluatePolynomial(polynomial, probes, plain, 4);
        rows.push([
          `${name}, ${patches}, seed ${seed}`,
          ...figures(summariseErrors(deltaE2000Rows(expected, out))),
          summariseErrors(deltaE2000Rows(expected, plain)).mean.toFixed(2),
          summariseErrors(deltaE2000Rows(labOf(clean), labOf(read))).mean.toFixed(2),
          model.crossValidation.summary.mean.toFixed(3),
          model.physics.nu.toFixed(1),
          seconds.toFixed(1),
        ]);
      }
  printTable(
    `Forward error of the CMYK model, ΔE00 at ${PROBES} unprinted values, ${NOISE} noise a reading`,
    ['device, patches', 'mean', '95 %', 'largest', 'polynomial', 'noise', 'cross-validated', 'ν', 's'],
    rows,
  );
}

/** Half of each published characterisation predicts the other half. */
export function publishedHalves(): void {
  const rows: string[][] = [];
  for (const name of PUBLISHED) {
    const found = publishedSet(name);
    if (found === undefined) continue;
    const count = found.device.length / 4;
    const order = shuffle(
      Array.from({ length: count }, (_, i) => i),
      createRandom(1),
    );
    const [fit, rest] = [order.slice(0, count >> 1), order.slice(count >> 1)];
    const model = fitInkModel(gatherRows(found.device, fit, 4), 4, gatherRows(found.xyz, fit, 3));
    const out = new Float64Array(rest.length * 3);
    inkModelLab(model, gatherRows(found.device, rest, 4), out);
    const errors = summariseErrors(deltaE2000Rows(labOf(gatherRows(found.xyz, rest, 3)), out));
    rows.push([name, String(count), ...figures(errors)]);
  }
  printTable(
    'Half of a published characterisation predicts the other half, ΔE00',
    ['file', 'patches', 'mean', '95 %', 'largest'],
    rows,
  );
}
