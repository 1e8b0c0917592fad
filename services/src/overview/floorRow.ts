import { labToHex } from '@melto/core/colour/srgb';
import type { HeadRow } from '@melto/store/results';
import type { WatchStateRow } from '@melto/store/watches';
import { CURVES } from '../ledger/kinds/curvesKind.ts';
import { WATCH } from '../ledger/kinds/watchKind.ts';
import { checkFigures, profileSummary } from '../ledger/resultKinds.ts';
import { summaryOf } from '../ledger/resultKind.ts';
import type { LinkMark } from './marks.ts';
import type { Move } from './nextMove.ts';

export interface FloorRow {
  readonly id: number;
  readonly device: string;
  readonly stock: string;
  readonly mode: string;
  readonly inkSet: string;
  /** What to do now, as a sentence and where it leads. */
  readonly whatNow: Move['move'];
  readonly attention: number;
  /** The calibration of its device that is due, in the house's words. */
  readonly duty: string | null;
  /** Screen colours of the condition's own printed ramps, one list a row. */
  readonly ramps: readonly (readonly string[])[];
  readonly links: readonly LinkMark[];
  readonly check: {
    readonly value: number;
    readonly limit: number;
    readonly verdict: string;
    readonly madeMs: number;
  } | null;
  /** Mean ΔE00 of the latest watch checks, and when the next one is due. */
  readonly watch: {
    readonly spark: readonly number[];
    readonly limit: number;
    readonly dueMs: number;
    readonly verdict: string;
  } | null;
}

export function checkOf(head: HeadRow | undefined): FloorRow['check'] {
  const figures = head === undefined ? undefined : checkFigures(head);
  if (head === undefined || figures === undefined) return null;
  return { ...figures, verdict: head.verdict ?? 'not-judged', madeMs: head.madeMs };
}

export function watchOf(head: HeadRow | undefined, state: WatchStateRow | undefined): FloorRow['watch'] {
  if (head === undefined || state === undefined || head.id !== state.watchId) return null;
  const { spark, dueMs, verdict } = state;
  return { spark, limit: summaryOf(WATCH, head).meanLimit, dueMs, verdict };
}

/** The condition's own printed ramps, from its profile or else from its curves. */
export function rampsOf(heads: readonly HeadRow[]): string[][] {
  const profile = heads.find(({ link }) => link === 'profile');
  const curves = heads.find(({ link }) => link === 'curves');
  const ramps =
    profile !== undefined
      ? profileSummary(profile).ramps
      : curves !== undefined
        ? summaryOf(CURVES, curves).ramps
        : [];
  return ramps.map((ramp) => ramp.map(([l = 0, a = 0, b = 0]) => labToHex([l, a, b])));
}
