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
  if (outputs === 3 && inputs > 4) {
    evaluateMany(spline, rows, out);
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

/** Centres by input, kept as long as the spline's own are. */
const columnsOf = new WeakMap<Float64Array, readonly Float64Array[]>();

function columns({ centres, inputs }: RadialSpline): readonly Float64Array[] {
  const known = columnsOf.get(centres);
  if (known?.length === inputs) return known;
  const n = centres.length / inputs;
  const made = Array.from({ length: inputs }, (_, input) =>
    Float64Array.from({ length: n }, (__, j) => centres[inputs * j + input]),
  );
  columnsOf.set(centres, made);
  return made;
}

/**
 * Rows of many inputs. Rows of a table differ from the one before by their last inputs only: the squares of distances
 * over the inputs before are taken from it. Sums are formed in the order of the general case, to the same last digit.
 */
function evaluateMany(spline: RadialSpline, rows: ArrayLike<number>, out: Float64Array): void {
  const { inputs, alpha, beta } = spline;
  const centres = columns(spline);
  const n = centres[0].length;
  // Squares of distances over the inputs up to each but the last.
  const sums = Array.from({ length: inputs - 1 }, () => new Float64Array(n));
  const before = new Float64Array(inputs).fill(NaN);
  const last = centres[inputs - 1];
  const upTo = sums[inputs - 2];
  for (let r = 0, count = rows.length / inputs; r < count; r++) {
    const at = r * inputs;
    let input = 0;
    while (input < inputs - 1 && rows[at + input] === before[input]) input++;
    for (; input < inputs - 1; input++) {
      const x = rows[at + input];
      before[input] = x;
      const column = centres[input];
      const sum = sums[input];
      const under = input > 0 ? sums[input - 1] : undefined;
      for (let j = 0; j < n; j++) {
        const d = x - column[j];
        sum[j] = under === undefined ? d * d : under[j] + d * d;
      }
    }
    let [s0, s1, s2] = beta;
    for (let c = 0; c < inputs; c++) {
      const x = rows[at + c];
      s0 += beta[3 * c + 3] * x;
      s1 += beta[3 * c + 4] * x;
      s2 += beta[3 * c + 5] * x;
    }
    const x = rows[at + inputs - 1];
    for (let j = 0, a = 0; j < n; j++, a += 3) {
      const d = x - last[j];
      const q = upTo[j] + d * d;
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
