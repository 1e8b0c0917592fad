import { verdictOf } from './verdict.ts';
import type { Verdict } from './verdict.ts';

/** A figure with its limit and what it comes to. */
export interface Metric {
  readonly name: string;
  readonly value: number;
  readonly limit: number;
  /** Limit minus value. */
  readonly margin: number;
  readonly verdict: Verdict;
}

export function metric(name: string, value: number, limit: number): Metric {
  return { name, value, limit, margin: limit - value, verdict: verdictOf(value, limit) };
}

/** A value as shown beside its limit: more decimals where rounding would make a failing value equal to its limit. */
export function formatAgainstLimit(value: number, limit: number, decimals = 2): string {
  for (let places = decimals; places <= 6; places++) {
    const text = value.toFixed(places);
    if (value <= limit || Number(text) > limit) return text;
  }
  return String(value);
}
