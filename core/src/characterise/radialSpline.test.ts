import { describe, expect, it } from 'vitest';
import { createRandom } from '../numerics/random.ts';
import { evaluateSpline } from './radialSpline.ts';
import type { RadialSpline } from './radialSpline.ts';

const random = createRandom(31);
const draw = (count: number): Float64Array => Float64Array.from({ length: count }, () => random.uniform());

function splineOf(inputs: number): RadialSpline {
  const centres = 40;
  return {
    ...{ inputs, outputs: 3, centres: draw(centres * inputs) },
    alpha: draw(3 * centres).map((value) => value - 0.5),
    beta: draw(3 * (inputs + 1)).map((value) => value - 0.5),
  };
}

/** The formula as it stands above the type, one row at a time. */
function byFormula({ inputs, centres, alpha, beta }: RadialSpline, x: Float64Array): number[] {
  return [0, 1, 2].map((o) => {
    let sum = beta[o];
    for (let c = 0; c < inputs; c++) sum += beta[3 * (c + 1) + o] * x[c];
    for (let j = 0; inputs * j < centres.length; j++) {
      let q = 0;
      for (let c = 0; c < inputs; c++) q += (x[c] - centres[inputs * j + c]) ** 2;
      sum += alpha[3 * j + o] * q ** 1.5;
    }
    return sum;
  });
}

describe('a radial spline', () => {
  it.each([3, 4, 5, 6, 8])('of %i inputs is its formula', (inputs) => {
    const spline = splineOf(inputs);
    const rows = draw(inputs * 12);
    const out = new Float64Array(3 * 12);
    evaluateSpline(spline, rows, out);
    for (let row = 0; row < 12; row++)
      byFormula(spline, rows.subarray(inputs * row, inputs * (row + 1))).forEach((value, o) =>
        expect(out[3 * row + o]).toBeCloseTo(value, 10),
      );
  });

  it.each([5, 7])('of %i inputs is the same to the last digit whichever row came before', (inputs) => {
    const spline = splineOf(inputs);
    // As the nodes of a table: first the last input changes, then the one before, then another, then none.
    const [a, b] = [draw(inputs), draw(inputs)];
    const mixed = (from: number): number[] => [...a.subarray(0, from), ...b.subarray(from)];
    const rows = [
      ...[[...a], mixed(inputs - 1), mixed(inputs - 2), mixed(2), mixed(0), [...b]],
      ...[mixed(1), [...a], [...a]],
    ];
    const together = new Float64Array(3 * rows.length);
    evaluateSpline(spline, Float64Array.from(rows.flat()), together);
    rows.forEach((row, at) => {
      const alone = new Float64Array(3);
      evaluateSpline(spline, row, alone);
      expect([...together.subarray(3 * at, 3 * at + 3)]).toEqual([...alone]);
    });
  });
});
