import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { summariseErrors } from '@melto/core/numerics/statistics';
import { listSharedPrints } from '@melto/store/instruments';
import type { Context } from '../kernel/context.ts';
import { instruments } from './instruments.ts';
import { loadReading } from './loadReading.ts';

/** How far two instruments agree on a print that both have read in one mode. */
export interface Agreement {
  /** Names of the two. */
  readonly instruments: readonly [string, string];
  readonly ids: readonly [number, number];
  readonly mode: string;
  /** Code of the print. */
  readonly code: string;
  readonly patches: number;
  /** ΔE00 between the two, patch by patch. */
  readonly mean: number;
  readonly p95: number;
  readonly largest: number;
  /** Mean difference of the second from the first, in Lab. */
  readonly shift: readonly [number, number, number];
}

/** Prints that are looked at, the newest. */
const MOST_PRINTS = 60;

/** The newest print that each two instruments have read in each mode, and how far they agree on it. */
export async function instrumentAgreements(context: Context): Promise<Agreement[]> {
  const [known, shared] = await Promise.all([
    instruments(context),
    listSharedPrints(context.database, MOST_PRINTS),
  ]);
  const nameOf = new Map(known.map(({ id, name }) => [id, name]));
  const newest = new Map<string, (typeof shared)[number]>();
  for (const print of shared) {
    const key = `${print.first} ${print.second} ${print.mode}`;
    if (!newest.has(key) && nameOf.has(print.first) && nameOf.has(print.second)) newest.set(key, print);
  }
  return Promise.all(
    [...newest.values()].map(async ({ first, second, mode, code, readings }) => {
      const [a, b] = await Promise.all(readings.map((id) => loadReading(context, id)));
      const { mean, p95, largest } = summariseErrors(deltaE2000Rows(a.lab, b.lab));
      const shift = [0, 1, 2].map((axis) => meanDifference(a.lab, b.lab, axis)) as [number, number, number];
      return {
        ...{ mode, code, mean, p95, largest, shift, ids: [first, second] as const },
        instruments: [nameOf.get(first) ?? '', nameOf.get(second) ?? ''] as const,
        patches: a.rows.length,
      };
    }),
  );
}

function meanDifference(a: Float64Array, b: Float64Array, axis: number): number {
  let sum = 0;
  for (let at = axis; at < a.length; at += 3) sum += b[at] - a[at];
  return (3 * sum) / a.length;
}
