import { Type } from '@sinclair/typebox';
import type { ShortCheckResult } from '@melto/core/conformity/shortCheck';
import type { ReportHeader } from '@melto/paper/report/shortCheckModel';
import type { ResultKind } from '../resultKind.ts';
import { VERDICT } from './forms.ts';

export interface ShortCheckSummary {
  readonly mean: number;
  readonly meanLimit: number;
  readonly largest: number;
  readonly largestLimit: number;
  readonly tight: boolean;
  readonly repeats: number;
  readonly code: string;
}

export interface ShortCheckDetail {
  readonly header: ReportHeader;
  readonly check: ShortCheckResult;
}

/** A chart of one strip through a profile, judged by mean and largest difference. */
export const SHORT_CHECK: ResultKind<ShortCheckSummary, ShortCheckDetail> = {
  shape: 'short-check',
  link: 'conformity',
  version: 1,
  summary: Type.Object({
    mean: Type.Number(),
    meanLimit: Type.Number(),
    largest: Type.Number(),
    largestLimit: Type.Number(),
    tight: Type.Boolean(),
    repeats: Type.Number(),
    code: Type.String(),
  }),
  detail: Type.Object({
    header: Type.Object({ condition: Type.String(), sheet: Type.String(), madeMs: Type.Number() }),
    check: Type.Object({
      verdict: VERDICT,
      metrics: Type.Array(Type.Object({ limit: Type.Number(), verdict: VERDICT })),
      patches: Type.Array(Type.Object({ reached: Type.Number() })),
    }),
  }),
  picture: ({ summary: { mean, meanLimit, largestLimit }, detail: { check } }) => ({
    picture: { kind: 'dots', differences: check.patches.map(({ reached }) => reached), limit: largestLimit },
    figures: `${mean.toFixed(2)} / ${meanLimit.toFixed(1)}`,
  }),
  reports: true,
};
