/** A smoothing spline s(d) = Σ α_j |d − d_j|³ + β·(1, d) of several outputs over the same centres. */
export interface RadialSpline {
  readonly inputs: number;
  readonly outputs: number;
  /** Row-major centre × input. */
  readonly centres: Float64Array;
  /** Row-major centre × output. */
  readonly alpha: Float64Array;
  /** Row-major (1 + input) × output. */
  readonly beta: Float64Array;
}

/** Evaluates rows of inputs; `out` row-major rows × outputs. */
export function evaluateSpline(spline: RadialSpline, rows: ArrayLike<number>, out: Float64Array): void {
  const { inputs, outputs, centres, alpha, beta } = spline;
  const n = centres.length / inputs;
  const count = rows.length / inputs;
  if (outputs === 3 && inputs === 3) {
    for (let r = 0; r < count; r++) {
      const x = rows[3 * r];
      const y = rows[3 * r + 1];
      const z = rows[3 * r + 2];
      let s0 = beta[0] + beta[3] * x + beta[6] * y + beta[9] * z;
      let s1 = beta[1] + beta[4] * x + beta[7] * y + beta[10] * z;
      let s2 = beta[2] + beta[5] * x + beta[8] * y + beta[11] * z;
      for (let j = 0; j < 3 * n; j += 3) {
        const dx = x - centres[j];
        const dy = y - centres[j + 1];
        const dz = z - centres[j + 2];
        const q = dx * dx + dy * dy + dz * dz;
        const k = q * Math.sqrt(q);
        s0 += alpha[j] * k;
        s1 += alpha[j + 1] * k;
        s2 += alpha[j + 2] * k;
      }
      out[3 * r] = s0;
      out[3 * r + 1] = s1;
      out[3 * r + 2] = s2;
    }
    return;
  }
  if (outputs === 3 && inputs === 4) {
    evaluateFour(spline, rows, out);
    return;
  }
  for (let r = 0; r < count; r++) {
    for (let o = 0; o < outputs; o++) {
      let sum = beta[o];
      for (let c = 0; c < inputs; c++) sum += beta[(c + 1) * outputs + o] * rows[r * inputs + c];
      out[r * outputs + o] = sum;
    }
    for (let j = 0; j < n; j++) {
      let q = 0;
      for (let c = 0; c < inputs; c++) {
        const x = rows[r * inputs + c] - centres[j * inputs + c];
        q += x * x;
      }
      const k = q * Math.sqrt(q);
      for (let o = 0; o < outputs; o++) out[r * outputs + o] += alpha[j * outputs + o] * k;
    }
  }
}

function evaluateFour(
  { centres, alpha, beta }: RadialSpline,
  rows: ArrayLike<number>,
  out: Float64Array,
): void {
  const n = centres.length / 4;
  for (let r = 0, count = rows.length / 4; r < count; r++) {
    const x = rows[4 * r];
    const y = rows[4 * r + 1];
    const z = rows[4 * r + 2];
    const w = rows[4 * r + 3];
    let s0 = beta[0] + beta[3] * x + beta[6] * y + beta[9] * z + beta[12] * w;
    let s1 = beta[1] + beta[4] * x + beta[7] * y + beta[10] * z + beta[13] * w;
    let s2 = beta[2] + beta[5] * x + beta[8] * y + beta[11] * z + beta[14] * w;
    for (let j = 0, c = 0, a = 0; j < n; j++, c += 4, a += 3) {
      const dx = x - centres[c];
      const dy = y - centres[c + 1];
      const dz = z - centres[c + 2];
      const dw = w - centres[c + 3];
      const q = dx * dx + dy * dy + dz * dz + dw * dw;
      const k = q * Math.sqrt(q);
      s0 += alpha[a] * k;
      s1 += alpha[a + 1] * k;
      s2 += alpha[a + 2] * k;
    }
    out[3 * r] = s0;
    out[3 * r + 1] = s1;
    out[3 * r + 2] = s2;
  }
}
