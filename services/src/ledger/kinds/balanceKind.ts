import { Type } from '@sinclair/typebox';
import type { NeutralJudgement } from '@melto/core/balance/judgeNeutrals';
import type { WrongGrey } from '@melto/core/balance/neutralScales';
import type { ResultKind } from '../resultKind.ts';
import type { KeptCurves } from './curvesKind.ts';
import { NUMBERS, ROWS_OF_NUMBERS, VERDICT, WORDS } from './forms.ts';

export interface BalanceSummary {
  readonly round: number;
  /** How the sheet it was made from stood, before the correction. */
  readonly figures: NeutralJudgement['figures'];
  readonly limits: NeutralJudgement['limits'];
  readonly extrapolated: boolean;
  readonly code: string;
}

export interface BalanceDetail extends KeptCurves {
  readonly judgement: NeutralJudgement;
  readonly predicted: readonly (readonly [number, number, number])[];
  readonly predictedK: readonly number[];
  readonly wrong: readonly WrongGrey[];
  readonly colours: readonly string[];
  readonly paperLab: readonly [number, number, number];
}

const FIGURES = Type.Object({ mean: Type.Number(), largest: Type.Number() });
const STEPS = Type.Array(Type.Object({ tone: Type.Number(), lab: NUMBERS, aim: NUMBERS }));

export const BALANCE: ResultKind<BalanceSummary, BalanceDetail> = {
  shape: 'balance',
  link: 'balance',
  version: 1,
  summary: Type.Object({
    round: Type.Integer(),
    figures: Type.Object({ cmyL: FIGURES, cmyCh: FIGURES, kL: FIGURES }),
    limits: FIGURES,
    extrapolated: Type.Boolean(),
    code: Type.String(),
  }),
  detail: Type.Object({
    curves: ROWS_OF_NUMBERS,
    judgement: Type.Object({ cmy: STEPS, k: STEPS, verdict: VERDICT }),
    predicted: ROWS_OF_NUMBERS,
    predictedK: NUMBERS,
    wrong: Type.Array(Type.Object({})),
    colours: WORDS,
    paperLab: NUMBERS,
  }),
  // A fresh sheet tells where the greys stand now; else the sheet that the round was made from.
  picture: ({ summary: { round }, detail }, reached) => {
    const { cmy } = reached === undefined ? detail.judgement : (reached.detail as NeutralJudgement);
    return {
      picture: { kind: 'track', greys: cmy.map(({ lab, aim }) => [lab[1] - aim[1], lab[2] - aim[2]]) },
      figures: `round ${round}`,
    };
  },
  reports: false,
};
