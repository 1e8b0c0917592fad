/** Row-major 3×3 matrix. */
export type Matrix3 = readonly [number, number, number, number, number, number, number, number, number];
export type Vector3 = readonly [number, number, number];

export function multiplyMatrix3(a: Matrix3, b: Matrix3): Matrix3 {
  const out = new Array<number>(9).fill(0);
  for (let i = 0; i < 3; i++)
    for (let j = 0; j < 3; j++) for (let k = 0; k < 3; k++) out[i * 3 + j] += a[i * 3 + k] * b[k * 3 + j];
  return out as unknown as Matrix3;
}

export function applyMatrix3(m: Matrix3, v: Vector3): Vector3 {
  return [
    m[0] * v[0] + m[1] * v[1] + m[2] * v[2],
    m[3] * v[0] + m[4] * v[1] + m[5] * v[2],
    m[6] * v[0] + m[7] * v[1] + m[8] * v[2],
  ];
}

export function determinant3(m: Matrix3): number {
  return (
    m[0] * (m[4] * m[8] - m[5] * m[7]) +
    m[1] * (m[5] * m[6] - m[3] * m[8]) +
    m[2] * (m[3] * m[7] - m[4] * m[6])
  );
}

/** Inverse by cofactors; throws for a singular matrix. */
export function invertMatrix3(m: Matrix3): Matrix3 {
  const c0 = m[4] * m[8] - m[5] * m[7];
  const c1 = m[5] * m[6] - m[3] * m[8];
  const c2 = m[3] * m[7] - m[4] * m[6];
  const determinant = determinant3(m);
  if (!(Math.abs(determinant) > 1e-300)) throw new RangeError('matrix is singular');
  const s = 1 / determinant;
  return [
    c0 * s,
    (m[2] * m[7] - m[1] * m[8]) * s,
    (m[1] * m[5] - m[2] * m[4]) * s,
    c1 * s,
    (m[0] * m[8] - m[2] * m[6]) * s,
    (m[2] * m[3] - m[0] * m[5]) * s,
    c2 * s,
    (m[1] * m[6] - m[0] * m[7]) * s,
    (m[0] * m[4] - m[1] * m[3]) * s,
  ];
}
