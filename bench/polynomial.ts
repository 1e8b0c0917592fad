import { solvePositiveDefinite } from '@melto/core/numerics/cholesky';

/** A polynomial of fourth order in three inputs, the plain model that accuracy figures stand beside. */
export interface Polynomial {
  readonly coefficients: readonly Float64Array[];
}

const ORDER = 4;

function terms(x: number, y: number, z: number): number[] {
  const out: number[] = [];
  for (let i = 0; i <= ORDER; i++)
    for (let j = 0; i + j <= ORDER; j++)
      for (let k = 0; i + j + k <= ORDER; k++) out.push(x ** i * y ** j * z ** k);
  return out;
}

/** Least squares of the rows of `lab` (× 3) over the rows of `device` (× 3). */
export function fitPolynomial(device: Float64Array, lab: Float64Array): Polynomial {
  const rows = Array.from({ length: device.length / 3 }, (_, i) =>
    terms(device[3 * i], device[3 * i + 1], device[3 * i + 2]),
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

export function evaluatePolynomial(polynomial: Polynomial, device: Float64Array, out: Float64Array): void {
  for (let r = 0; r < device.length / 3; r++) {
    const row = terms(device[3 * r], device[3 * r + 1], device[3 * r + 2]);
    polynomial.coefficients.forEach(
      (c, axis) => (out[3 * r + axis] = row.reduce((sum, value, i) => sum + value * c[i], 0)),
    );
  }
}
