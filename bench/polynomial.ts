import { solvePositiveDefinite } from '@melto/core/numerics/cholesky';

/** A polynomial of fourth order in three or four inputs, the plain model that accuracy figures stand beside. */
export interface Polynomial {
  readonly coefficients: readonly Float64Array[];
}

const ORDER = 4;

/** All products of powers whose sum is four at most. */
function terms(values: ArrayLike<number>): number[] {
  let out: { readonly product: number; readonly order: number }[] = [{ product: 1, order: 0 }];
  for (let c = 0; c < values.length; c++)
    out = out.flatMap(({ product, order }) =>
      Array.from({ length: ORDER - order + 1 }, (_, power) => ({
        product: product * values[c] ** power,
        order: order + power,
      })),
    );
  return out.map(({ product }) => product);
}

/** Least squares of the rows of `lab` (× 3) over the rows of `device` (× inputs). */
export function fitPolynomial(device: Float64Array, lab: Float64Array, inputs = 3): Polynomial {
  const rows = Array.from({ length: device.length / inputs }, (_, i) =>
    terms(device.subarray(inputs * i, inputs * (i + 1))),
  );
  const n = rows[0].length;
  const normal = new Float64Array(n * n);
  for (const row of rows)
    for (let i = 0; i < n; i++) for (let j = 0; j < n; j++) normal[i * n + j] += row[i] * row[j];
  for (let i = 0; i < n; i++) normal[i * n + i] += 1e-9;
  const coefficients = [0, 1, 2].map((axis) => {
    const right = new Float64Array(n);
    rows.forEach((row, r) => row.forEach((value, i) => (right[i] += value * lab[3 * r + axis])));
    return solvePositiveDefinite(normal, n, right);
  });
  return { coefficients };
}

export function evaluatePolynomial(
  polynomial: Polynomial,
  device: Float64Array,
  out: Float64Array,
  inputs = 3,
): void {
  for (let r = 0; r < device.length / inputs; r++) {
    const row = terms(device.subarray(inputs * r, inputs * (r + 1)));
    polynomial.coefficients.forEach(
      (c, axis) => (out[3 * r + axis] = row.reduce((sum, value, i) => sum + value * c[i], 0)),
    );
  }
}
