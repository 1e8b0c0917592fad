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

/** Two rows at once: what is read of a centre serves both. Each row's sums are formed as the general case forms them. */
function evaluateFour(
  { centres, alpha, beta }: RadialSpline,
  rows: ArrayLike<number>,
  out: Float64Array,
): void {
  const n = centres.length / 4;
  for (let r = 0, count = rows.length / 4; r < count; r += 2) {
    // An odd last row is worked out beside itself.
    const other = Math.min(r + 1, count - 1);
    const x = rows[4 * r];
    const y = rows[4 * r + 1];
    const z = rows[4 * r + 2];
    const w = rows[4 * r + 3];
    const x1 = rows[4 * other];
    const y1 = rows[4 * other + 1];
    const z1 = rows[4 * other + 2];
    const w1 = rows[4 * other + 3];
    let s0 = beta[0] + beta[3] * x + beta[6] * y + beta[9] * z + beta[12] * w;
    let s1 = beta[1] + beta[4] * x + beta[7] * y + beta[10] * z + beta[13] * w;
    let s2 = beta[2] + beta[5] * x + beta[8] * y + beta[11] * z + beta[14] * w;
    let t0 = beta[0] + beta[3] * x1 + beta[6] * y1 + beta[9] * z1 + beta[12] * w1;
    let t1 = beta[1] + beta[4] * x1 + beta[7] * y1 + beta[10] * z1 + beta[13] * w1;
    let t2 = beta[2] + beta[5] * x1 + beta[8] * y1 + beta[11] * z1 + beta[14] * w1;
    for (let j = 0, c = 0, a = 0; j < n; j++, c += 4, a += 3) {
      const cx = centres[c];
      const cy = centres[c + 1];
      const cz = centres[c + 2];
      const cw = centres[c + 3];
      const a0 = alpha[a];
      const a1 = alpha[a + 1];
      const a2 = alpha[a + 2];
      const q = (x - cx) * (x - cx) + (y - cy) * (y - cy) + (z - cz) * (z - cz) + (w - cw) * (w - cw);
      const k = q * Math.sqrt(q);
      s0 += a0 * k;
      s1 += a1 * k;
      s2 += a2 * k;
      const q1 =
        (x1 - cx) * (x1 - cx) + (y1 - cy) * (y1 - cy) + (z1 - cz) * (z1 - cz) + (w1 - cw) * (w1 - cw);
      const k1 = q1 * Math.sqrt(q1);
      t0 += a0 * k1;
      t1 += a1 * k1;
      t2 += a2 * k1;
    }
    out[3 * other] = t0;
    out[3 * other + 1] = t1;
    out[3 * other + 2] = t2;
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

/** Inputs by which rows of a table that follow each other differ, at most times. */
const INNER = 2;

/** Squares of distances from the centres over the inputs of a row up to each but the last ones. */
class PrefixSums {
  readonly #inputs: number;
  readonly #before: Float64Array;
  readonly #sums: readonly Float64Array[];

  constructor(private readonly centres: readonly Float64Array[]) {
    this.#inputs = centres.length - INNER;
    this.#before = new Float64Array(this.#inputs).fill(NaN);
    this.#sums = Array.from({ length: this.#inputs }, () => new Float64Array(centres[0].length));
  }

  /** Whether a row has the inputs of the last one. */
  holds(rows: ArrayLike<number>, at: number): boolean {
    for (let input = 0; input < this.#inputs; input++)
      if (rows[at + input] !== this.#before[input]) return false;
    return true;
  }

  /** The sums over all of them; those over the inputs in which a row is like the last one stand. */
  of(rows: ArrayLike<number>, at: number): Float64Array {
    let input = 0;
    while (input < this.#inputs && rows[at + input] === this.#before[input]) input++;
    for (; input < this.#inputs; input++) {
      const x = rows[at + input];
      this.#before[input] = x;
      const column = this.centres[input];
      const sum = this.#sums[input];
      const under = input > 0 ? this.#sums[input - 1] : undefined;
      for (let j = 0; j < sum.length; j++) {
        const d = x - column[j];
        sum[j] = under === undefined ? d * d : under[j] + d * d;
      }
    }
    return this.#sums[this.#inputs - 1];
  }
}

/**
 * Rows of many inputs, two at once: what is read of a centre serves both. Rows of a table differ from the one before by
 * their last inputs only. Sums are formed in the order of the general case, to the same last digit.
 */
function evaluateMany(spline: RadialSpline, rows: ArrayLike<number>, out: Float64Array): void {
  const { inputs, beta } = spline;
  const centres = columns(spline);
  const [first, second] = [new PrefixSums(centres), new PrefixSums(centres)];
  for (let r = 0, count = rows.length / inputs; r < count; r++)
    for (let o = 0; o < 3; o++) {
      let sum = beta[o];
      for (let c = 0; c < inputs; c++) sum += beta[3 * c + 3 + o] * rows[r * inputs + c];
      out[3 * r + o] = sum;
    }
  for (let at = 0; at < rows.length; at += 2 * inputs) {
    // An odd last row is worked out beside itself.
    const other = Math.min(at + inputs, rows.length - inputs);
    const upTo = first.of(rows, at);
    const otherUpTo = first.holds(rows, other) ? upTo : second.of(rows, other);
    addPair(spline.alpha, centres, upTo, otherUpTo, rows, at, other, out);
  }
}

/** Adds the kernels of all centres to two rows, which begin at `at` and `other`. */
function addPair(
  alpha: Float64Array,
  centres: readonly Float64Array[],
  upTo: Float64Array,
  otherUpTo: Float64Array,
  rows: ArrayLike<number>,
  at: number,
  other: number,
  out: Float64Array,
): void {
  const inputs = centres.length;
  const [one, two] = [centres[inputs - 2], centres[inputs - 1]];
  const [s, t] = [(3 * at) / inputs, (3 * other) / inputs];
  const x = rows[at + inputs - 2];
  const y = rows[at + inputs - 1];
  const v = rows[other + inputs - 2];
  const w = rows[other + inputs - 1];
  let s0 = out[s];
  let s1 = out[s + 1];
  let s2 = out[s + 2];
  let t0 = out[t];
  let t1 = out[t + 1];
  let t2 = out[t + 2];
  for (let j = 0, a = 0; j < one.length; j++, a += 3) {
    const c = one[j];
    const d = two[j];
    const a0 = alpha[a];
    const a1 = alpha[a + 1];
    const a2 = alpha[a + 2];
    const q = upTo[j] + (x - c) * (x - c) + (y - d) * (y - d);
    const k = q * Math.sqrt(q);
    s0 += a0 * k;
    s1 += a1 * k;
    s2 += a2 * k;
    const p = otherUpTo[j] + (v - c) * (v - c) + (w - d) * (w - d);
    const l = p * Math.sqrt(p);
    t0 += a0 * l;
    t1 += a1 * l;
    t2 += a2 * l;
  }
  out[t] = t0;
  out[t + 1] = t1;
  out[t + 2] = t2;
  out[s] = s0;
  out[s + 1] = s1;
  out[s + 2] = s2;
}
