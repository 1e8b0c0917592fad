import { Type } from '@sinclair/typebox';
import type { CheckDetail } from '@melto/core/conformity/checkDetail';
import type { ResultKind } from '../resultKind.ts';
import { NUMBERS, VERDICT } from './forms.ts';

export interface AimCheckSummary {
  readonly kind: 'aims';
  /** The metric nearest to its limit, or farthest over it. */
  readonly value: number;
  readonly limit: number;
  readonly name: string;
  readonly mean: number;
  readonly corrected: boolean;
  readonly tolerances: string;
  readonly aims: string;
  readonly code: string;
}

/** 95 % of the patches of a proof lie under it. */
const DOTS = 5;

/** A control wedge or a chart judged by an aim set and a tolerance set. */
export const AIM_CHECK: ResultKind<AimCheckSummary, CheckDetail> = {
  shape: 'aim-check',
  link: 'conformity',
  version: 1,
  summary: Type.Object({
    kind: Type.Literal('aims'),
    value: Type.Number(),
    limit: Type.Number(),
    name: Type.String(),
    mean: Type.Number(),
    corrected: Type.Boolean(),
    tolerances: Type.String(),
    aims: Type.String(),
    code: Type.String(),
  }),
  detail: Type.Object({
    kind: Type.Literal('aims'),
    header: Type.Object({ condition: Type.String(), sheet: Type.String(), madeMs: Type.Number() }),
    verdict: VERDICT,
    metrics: Type.Array(Type.Object({ limit: Type.Number(), verdict: VERDICT })),
    patches: Type.Array(
      Type.Object({ device: NUMBERS, aim: NUMBERS, measured: NUMBERS, deltaE: Type.Number() }),
    ),
  }),
  picture: ({ summary: { value, limit }, detail: { patches } }) => ({
    picture: { kind: 'dots', differences: patches.map(({ deltaE }) => deltaE), limit: DOTS },
    figures: `${value.toFixed(2)} / ${limit.toFixed(1)}`,
  }),
  reports: true,
};
