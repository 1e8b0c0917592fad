import { Type } from '@sinclair/typebox';
import type { LimitProposal } from '@melto/core/limits/proposeLimit';
import type { TotalInkProposal } from '@melto/core/limits/totalInk';
import type { ResultKind } from '../resultKind.ts';
import { NUMBERS, orNull, WORDS } from './forms.ts';

export interface LimitsSummary {
  /** Device values 0..1 by channel, and in total (1 = 100 %). */
  readonly limits: readonly number[];
  readonly total: number;
  /** Density over paper of the full tones. */
  readonly dmax: readonly number[];
  readonly code: string;
  readonly edited: boolean;
}

export interface LimitsDetail {
  readonly readingId: number;
  readonly proposals: readonly LimitProposal[];
  readonly totalInk: TotalInkProposal | null;
  /** Screen colours of the solids. */
  readonly colours: readonly string[];
}

export const LIMITS: ResultKind<LimitsSummary, LimitsDetail> = {
  shape: 'limits',
  link: 'limits',
  version: 1,
  summary: Type.Object({
    limits: NUMBERS,
    total: Type.Number(),
    dmax: NUMBERS,
    code: Type.String(),
    edited: Type.Boolean(),
  }),
  detail: Type.Object({
    readingId: Type.Number(),
    proposals: Type.Array(Type.Object({ ink: Type.String(), limit: Type.Number(), reason: Type.String() })),
    totalInk: orNull(Type.Object({ total: Type.Number(), tolerance: Type.Number() })),
    colours: WORDS,
  }),
  picture: ({ summary: { limits, total }, detail: { colours } }) => ({
    picture: { kind: 'bars', limits, colours },
    figures: `${(100 * total).toFixed(0)} % in all`,
  }),
  reports: false,
};
