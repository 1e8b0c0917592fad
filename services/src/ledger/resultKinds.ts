import type { ResultRow } from '@melto/store/results';
import { AIM_CHECK } from './kinds/aimCheckKind.ts';
import { BALANCE } from './kinds/balanceKind.ts';
import { CURVES } from './kinds/curvesKind.ts';
import { EVENNESS } from './kinds/evennessKind.ts';
import { GIVEN_PROFILE } from './kinds/givenProfileKind.ts';
import { LIMITS } from './kinds/limitsKind.ts';
import { PROFILE } from './kinds/profileKind.ts';
import type { ProfileSummary } from './kinds/profileKind.ts';
import { SHORT_CHECK } from './kinds/shortCheckKind.ts';
import { WATCH } from './kinds/watchKind.ts';
import { summaryOf } from './resultKind.ts';
import type { ResultKind } from './resultKind.ts';

/** All kinds of results, one record each. */
export const RESULT_KINDS = [
  EVENNESS,
  LIMITS,
  CURVES,
  BALANCE,
  PROFILE,
  GIVEN_PROFILE,
  AIM_CHECK,
  SHORT_CHECK,
  WATCH,
] as const;

/** The kind of a stored result. */
export function kindOf({ id, shape }: Pick<ResultRow, 'id' | 'shape'>): ResultKind<unknown, unknown> {
  const found = RESULT_KINDS.find((kind) => kind.shape === shape);
  if (found === undefined) throw new Error(`result ${id} is of no known kind: ${shape}`);
  return found as unknown as ResultKind<unknown, unknown>;
}

/** What a profile is called, its printed ramps, and how well it fits what it was built from: unknown where others built it. */
export function profileSummary(row: Omit<ResultRow, 'author' | 'validDays'>): {
  readonly name: string;
  readonly ramps: ProfileSummary['ramps'];
  readonly fit: number | null;
  /** The light that it is for, where that is not D50 for the 2° observer. */
  readonly light?: string;
} {
  if (row.shape === GIVEN_PROFILE.shape) return { ...summaryOf(GIVEN_PROFILE, row), fit: null };
  const summary = summaryOf(PROFILE, row);
  return { ...summary, fit: summary.mean };
}

/** The one figure that lists show of a check, and its limit; undefined where the row is no check. */
export function checkFigures(row: ResultRow): { readonly value: number; readonly limit: number } | undefined {
  if (row.shape === AIM_CHECK.shape) {
    const { value, limit } = summaryOf(AIM_CHECK, row);
    return { value, limit };
  }
  if (row.shape !== SHORT_CHECK.shape) return undefined;
  const { mean, meanLimit } = summaryOf(SHORT_CHECK, row);
  return { value: mean, limit: meanLimit };
}
