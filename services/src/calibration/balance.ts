import { balanceNeutrals } from '@melto/core/balance/balanceNeutrals';
import { judgeNeutrals } from '@melto/core/balance/judgeNeutrals';
import type { NeutralJudgement } from '@melto/core/balance/judgeNeutrals';
import { neutralReading } from '@melto/core/balance/neutralScales';
import type { NeutralReading, WrongGrey } from '@melto/core/balance/neutralScales';
import { findResult, insertResult, listHeads } from '@melto/store/results';
import { domainNow } from '../kernel/clock.ts';
import { LOCAL_PERSON } from '../kernel/context.ts';
import type { Services } from '../kernel/context.ts';
import { roundCurves } from '../ledger/curvesInForce.ts';
import type { KeptCurves } from '../ledger/curvesInForce.ts';
import { pressReading } from './pressReading.ts';
import type { PressReading } from './pressReading.ts';
import { Problem } from '../kernel/problem.ts';
import { solidColours } from './solidColours.ts';

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

const LEAST_VARIATIONS = 6;

export function neutralScalesOf(reading: PressReading): NeutralReading {
  const scales = neutralReading(reading.device, reading.xyz);
  if (scales === undefined)
    throw new Problem(
      'bad-input',
      'The reading has no near-neutral scales.',
      'Read a near-neutral chart.',
      'readingId',
    );
  return scales;
}

/** One round of balance from a reading of a near-neutral chart, as a new version; it starts from the curves in force. */
export async function makeBalance(
  services: Services,
  conditionId: number,
  readingId: number,
): Promise<{ readonly id: number }> {
  const reading = await pressReading(services, conditionId, readingId, 'near-neutral');
  const scales = neutralScalesOf(reading);
  if (scales.variations.length < LEAST_VARIATIONS)
    throw new Problem(
      'bad-input',
      'The chart lacks greys with small changes.',
      'Print the near-neutral chart.',
      'readingId',
    );
  const through = reading.print.curvesResultId;
  const earlier = through === null ? undefined : await findResult(services.database, through);
  if (earlier === undefined)
    throw new Problem(
      'bad-input',
      'This sheet was printed without curves; balance starts from them.',
      'Make curves first, then print the near-neutral chart through them.',
      'readingId',
    );
  const heads = await listHeads(services.database, conditionId);
  const curves = heads.find(({ link }) => link === 'curves');
  const { judgement, next, predicted, predictedK } = balanceNeutrals(scales, reading.present);
  const round = earlier.link === 'balance' ? (JSON.parse(earlier.summary) as BalanceSummary).round + 1 : 1;
  const summary: BalanceSummary = {
    round,
    figures: judgement.figures,
    limits: judgement.limits,
    extrapolated: judgement.extrapolated,
    code: reading.print.code,
  };
  const detail: BalanceDetail = {
    curves: roundCurves(next),
    judgement,
    predicted,
    predictedK,
    wrong: scales.wrong,
    colours: solidColours(reading),
    paperLab: scales.paperLab,
  };
  const madeMs = await domainNow(services);
  // It stands on the curves that its first round started from.
  const root = earlier.link === 'curves' ? earlier.id : curves?.id;
  return services.database.transaction((sql) =>
    insertResult(
      sql,
      { conditionId, link: 'balance', verdict: null, summary, detail, madeMs },
      { readings: [readingId], results: root === undefined ? [] : [root] },
      LOCAL_PERSON,
    ),
  );
}

export function judgeScales(reading: PressReading): NeutralJudgement {
  return judgeNeutrals(neutralScalesOf(reading));
}
