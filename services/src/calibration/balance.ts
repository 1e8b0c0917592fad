import { balanceNeutrals } from '@melto/core/balance/balanceNeutrals';
import { cmykWithin } from '@melto/core/device/cmykWithin';
import { judgeNeutrals } from '@melto/core/balance/judgeNeutrals';
import type { NeutralJudgement } from '@melto/core/balance/judgeNeutrals';
import { neutralReading } from '@melto/core/balance/neutralScales';
import type { NeutralReading } from '@melto/core/balance/neutralScales';
import { findHead, findResult, insertResult } from '@melto/store/results';
import type { ResultRow } from '@melto/store/results';
import { domainNow } from '../kernel/clock.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { BALANCE } from '../ledger/kinds/balanceKind.ts';
import type { BalanceDetail, BalanceSummary } from '../ledger/kinds/balanceKind.ts';
import { roundCurves } from '../ledger/kinds/curvesKind.ts';
import { summaryOf, toStore } from '../ledger/resultKind.ts';
import type { Stored } from '../ledger/resultKind.ts';
import { pressReading } from './pressReading.ts';
import type { PressReading } from './pressReading.ts';
import { solidColours } from './solidColours.ts';

const LEAST_VARIATIONS = 6;

export function neutralScalesOf(reading: PressReading): NeutralReading {
  const { process } = reading.condition;
  const scales = neutralReading(cmykWithin(process, reading.device), reading.xyz);
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
  context: Context,
  conditionId: number,
  readingId: number,
): Promise<{ readonly id: number }> {
  const { summary, detail, earlier } = await workBalance(context, conditionId, readingId);
  const curves = await findHead(context.database, conditionId, 'curves');
  const madeMs = await domainNow(context);
  // It stands on the curves that its first round started from.
  const root = earlier.link === 'curves' ? earlier.id : curves?.id;
  return unitOfWork(context, ({ database }) =>
    insertResult(
      database,
      { conditionId, ...toStore(BALANCE, { summary, detail }), verdict: null, madeMs },
      { readings: [readingId], results: root === undefined ? [] : [root] },
    ),
  );
}

/** One round of balance from a reading, and the result whose curves its sheet was printed through; nothing is stored. */
export async function workBalance(
  context: Context,
  conditionId: number,
  readingId: number,
): Promise<Stored<BalanceSummary, BalanceDetail> & { readonly earlier: ResultRow }> {
  const reading = await pressReading(context, conditionId, readingId, 'near-neutral');
  const scales = neutralScalesOf(reading);
  if (scales.variations.length < LEAST_VARIATIONS)
    throw new Problem(
      'bad-input',
      'The chart lacks greys with small changes.',
      'Print the near-neutral chart.',
      'readingId',
    );
  const through = reading.print.curvesResultId;
  const earlier = through === null ? undefined : await findResult(context.database, through);
  if (earlier === undefined)
    throw new Problem(
      'bad-input',
      'This sheet was printed without curves; balance starts from them.',
      'Make curves first, then print the near-neutral chart through them.',
      'readingId',
    );
  const { judgement, next, predicted, predictedK } = balanceNeutrals(
    scales,
    reading.present,
    reading.condition.process,
  );
  const round = earlier.shape === BALANCE.shape ? summaryOf(BALANCE, earlier).round + 1 : 1;
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
  return { summary, detail, earlier };
}

export function judgeScales(reading: PressReading): NeutralJudgement {
  return judgeNeutrals(neutralScalesOf(reading));
}
