import { mean, standardDeviation } from '../numerics/statistics.ts';

/** 95 %, two-sided. */
const Z = 1.959964;
/** With fewer values nothing is told of a capability. */
export const LEAST_FOR_CAPABILITY = 20;

export interface Share {
  readonly within: number;
  readonly of: number;
  /** 0..1, with its 95 % interval by Wilson (1927). */
  readonly share: number;
  readonly low: number;
  readonly high: number;
}

/** A share with what it may be at this number. @throws RangeError without any value. */
export function shareOf(within: number, of: number): Share {
  if (!(of > 0)) throw new RangeError('a share of nothing');
  const p = within / of;
  const z2 = Z * Z;
  const centre = (p + z2 / (2 * of)) / (1 + z2 / of);
  const half = (Z / (1 + z2 / of)) * Math.sqrt((p * (1 - p)) / of + z2 / (4 * of * of));
  return { within, of, share: p, low: Math.max(0, centre - half), high: Math.min(1, centre + half) };
}

export interface Capability {
  readonly count: number;
  readonly mean: number;
  readonly deviation: number;
  /** Width of the limits over six standard deviations; none for a limit to one side. */
  readonly cp: number | undefined;
  /** The nearer limit over three standard deviations, with its 95 % interval by Bissell (1990). */
  readonly cpk: number;
  readonly low: number;
  readonly high: number;
}

/**
 * Capability of a process by values that are taken to be normal.
 * @param limits lower and upper; none where there is a limit to one side alone.
 */
export function capability(
  values: ArrayLike<number>,
  limits: readonly [number | undefined, number | undefined],
): Capability | undefined {
  const known = Array.from(values).filter((value) => Number.isFinite(value));
  return capabilityOf(
    { count: known.length, mean: mean(known), deviation: standardDeviation(known) },
    limits,
  );
}

/** The same from the moments of the values. */
export function capabilityOf(
  { count, mean: middle, deviation }: Pick<Capability, 'count' | 'mean' | 'deviation'>,
  [lower, upper]: readonly [number | undefined, number | undefined],
): Capability | undefined {
  if (count < LEAST_FOR_CAPABILITY || (lower === undefined && upper === undefined)) return undefined;
  if (!(deviation > 0)) return undefined;
  const nearest = Math.min(
    lower === undefined ? Infinity : middle - lower,
    upper === undefined ? Infinity : upper - middle,
  );
  const cpk = nearest / (3 * deviation);
  const half = Z * Math.sqrt(1 / (9 * count) + (cpk * cpk) / (2 * (count - 1)));
  return {
    ...{ count, mean: middle, deviation, cpk },
    cp: lower === undefined || upper === undefined ? undefined : (upper - lower) / (6 * deviation),
    low: cpk - half,
    high: cpk + half,
  };
}
