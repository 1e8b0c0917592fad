/** Arithmetic mean; NaN for an empty list. */
export function mean(values: ArrayLike<number>): number {
  let sum = 0;
  for (let i = 0; i < values.length; i++) sum += values[i];
  return sum / values.length;
}

export function largest(values: ArrayLike<number>): number {
  let result = -Infinity;
  for (let i = 0; i < values.length; i++) if (values[i] > result) result = values[i];
  return result;
}

/** Percentile (0..100) by linear interpolation between order statistics; NaN for an empty list. */
export function percentile(values: ArrayLike<number>, percent: number): number {
  if (values.length === 0) return NaN;
  const sorted = Float64Array.from(values).sort();
  const position = (percent / 100) * (sorted.length - 1);
  const below = Math.floor(position);
  const above = Math.min(below + 1, sorted.length - 1);
  return sorted[below] + (position - below) * (sorted[above] - sorted[below]);
}

export function median(values: ArrayLike<number>): number {
  return percentile(values, 50);
}

/** Of a sample (n − 1); NaN for fewer than two values. */
export function standardDeviation(values: ArrayLike<number>): number {
  const centre = mean(values);
  let sum = 0;
  for (let i = 0; i < values.length; i++) sum += (values[i] - centre) ** 2;
  return values.length < 2 ? NaN : Math.sqrt(sum / (values.length - 1));
}

/** Pearson correlation of two lists of equal length; 0 where one of them is constant. */
export function correlation(a: ArrayLike<number>, b: ArrayLike<number>): number {
  if (a.length !== b.length) throw new RangeError(`correlation of ${a.length} with ${b.length} values`);
  const meanA = mean(a);
  const meanB = mean(b);
  let ab = 0;
  let aa = 0;
  let bb = 0;
  for (let i = 0; i < a.length; i++) {
    ab += (a[i] - meanA) * (b[i] - meanB);
    aa += (a[i] - meanA) ** 2;
    bb += (b[i] - meanB) ** 2;
  }
  return aa > 0 && bb > 0 ? ab / Math.sqrt(aa * bb) : 0;
}

export interface ErrorSummary {
  readonly count: number;
  readonly mean: number;
  readonly median: number;
  readonly p95: number;
  readonly largest: number;
}

export function summariseErrors(errors: ArrayLike<number>): ErrorSummary {
  return {
    count: errors.length,
    mean: mean(errors),
    median: median(errors),
    p95: percentile(errors, 95),
    largest: errors.length > 0 ? largest(errors) : NaN,
  };
}
