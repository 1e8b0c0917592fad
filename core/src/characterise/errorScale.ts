import { choleskyFactor, choleskySolve } from '../numerics/cholesky.ts';

/** Rows that a feature is held back by, so that few rows bend nothing. */
const RIDGE = 3;
const ROUNDS = 40;
const SETTLED = 1e-9;
/** An error of nothing, as of a device without noise, is taken for one of a millionth. */
const LEAST_SQUARE = 1e-12;
/** One error counts at most so many times what is expected of it: a wrong patch is no rule. */
const MOST_RATIO = 10;

/**
 * How large errors are, by place: exp of a quadratic of lightness and device values and of a plane of a*, b* and
 * chroma, fitted to squared errors by gamma regression with a log link (McCullagh and Nelder, Generalized Linear
 * Models, 1989, chapter 8).
 */
export class ErrorScale {
  readonly #coefficients: Float64Array;
  readonly #least: number;
  readonly #most: number;

  /**
   * @param device row-major × channels, 0..1.
   * @param lab row-major × 3.
   * @param squares squared errors, each over the variance that it is expected to have in units of the scale squared.
   */
  constructor(
    private readonly channels: number,
    device: Float64Array,
    lab: Float64Array,
    squares: Float64Array,
  ) {
    const rows = squares.length;
    const width = featureCount(channels);
    const features = new Float64Array(rows * width);
    for (let row = 0; row < rows; row++)
      featuresOf(channels, device, row * channels, lab, 3 * row, features.subarray(row * width));
    this.#coefficients = fitted(
      features,
      width,
      squares.map((square) => Math.max(LEAST_SQUARE, square)),
    );
    let least = Infinity;
    let most = -Infinity;
    for (let row = 0; row < rows; row++) {
      const value = product(this.#coefficients, features, row * width);
      least = Math.min(least, value);
      most = Math.max(most, value);
    }
    this.#least = least;
    this.#most = most;
  }

  /** Root mean square error at a device value of a colour, for an expected variance of one. */
  at(device: ArrayLike<number>, lab: ArrayLike<number>): number {
    const features = new Float64Array(this.#coefficients.length);
    featuresOf(this.channels, device, 0, lab, 0, features);
    // Beyond what was read it grows no further.
    const value = Math.min(this.#most, Math.max(this.#least, product(this.#coefficients, features, 0)));
    return Math.exp(value / 2);
  }
}

const featureCount = (channels: number): number => 6 + 2 * channels;

function featuresOf(
  channels: number,
  device: ArrayLike<number>,
  at: number,
  lab: ArrayLike<number>,
  labAt: number,
  out: Float64Array,
): void {
  const [l, a, b] = [lab[labAt] / 100, lab[labAt + 1] / 100, lab[labAt + 2] / 100];
  out.set([1, l, l * l, a, b, Math.hypot(a, b)]);
  for (let c = 0; c < channels; c++) {
    out[6 + 2 * c] = device[at + c];
    out[7 + 2 * c] = device[at + c] ** 2;
  }
}

function product(coefficients: Float64Array, features: Float64Array, at: number): number {
  let sum = 0;
  for (let i = 0; i < coefficients.length; i++) sum += coefficients[i] * features[at + i];
  return sum;
}

/** Iteratively reweighted least squares: with a log link the weights of gamma regression are all one. */
function fitted(features: Float64Array, width: number, squares: Float64Array): Float64Array {
  const rows = squares.length;
  const normal = new Float64Array(width * width);
  for (let i = 1; i < width; i++) normal[i * width + i] = RIDGE;
  for (let row = 0; row < rows; row++)
    for (let i = 0; i < width; i++)
      for (let j = 0; j <= i; j++)
        normal[i * width + j] += features[row * width + i] * features[row * width + j];
  if (!choleskyFactor(normal, width)) throw new Error(`no error scale from ${rows} rows`);
  const mean = squares.reduce((sum, value) => sum + value, 0) / rows;
  let coefficients = new Float64Array(width);
  coefficients[0] = Math.log(mean);
  for (let round = 0; round < ROUNDS; round++) {
    const next = new Float64Array(width);
    for (let row = 0; row < rows; row++) {
      const linear = product(coefficients, features, row * width);
      const working = linear + Math.min(MOST_RATIO, squares[row] / Math.exp(linear)) - 1;
      for (let i = 0; i < width; i++) next[i] += features[row * width + i] * working;
    }
    choleskySolve(normal, width, next);
    const moved = Math.max(...next.map((value, i) => Math.abs(value - coefficients[i])));
    coefficients = next;
    if (moved < SETTLED) break;
  }
  return coefficients;
}
