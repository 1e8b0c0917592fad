import { insertResult } from '@melto/store/results';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { AIM_CHECK } from '../ledger/kinds/aimCheckKind.ts';
import type { AimCheckSummary } from '../ledger/kinds/aimCheckKind.ts';
import { toStore } from '../ledger/resultKind.ts';
import { completeReading, loadReading, requireStanding } from '../reading/loadReading.ts';
import { judgedByOf } from './checkChoice.ts';
import type { CheckChoice } from './checkChoice.ts';
import { checkDetail } from './checkDetail.ts';

/** Judges a reading by what was chosen when its wedge was printed, or anew. */
export async function judgeReading(
  context: Context,
  readingId: number,
  choice?: CheckChoice,
): Promise<{ readonly id: number }> {
  const loaded = await loadReading(context, readingId);
  requireStanding(loaded);
  const before = judgedByOf(loaded);
  const chosen = choice ?? before;
  if (chosen === undefined)
    throw new Problem(
      'bad-input',
      'This print was made for no aims.',
      'Choose aims and tolerances.',
      'aimSetId',
    );
  const { detail, check } = await checkDetail(context, loaded, chosen, before);
  const nearest = [...detail.metrics].sort((a, b) => (b.value ?? 0) / b.limit - (a.value ?? 0) / a.limit)[0];
  const summary: AimCheckSummary = {
    kind: 'aims',
    value: nearest?.value ?? 0,
    limit: nearest?.limit ?? 0,
    name: nearest === undefined ? '' : `${nearest.group} ${nearest.statistic} ${nearest.quantity}`,
    mean: detail.distribution.mean,
    corrected: chosen.substrateCorrected,
    tolerances: detail.header.tolerances.name,
    aims: detail.header.aims.name,
    code: loaded.print.code,
  };
  const sources = [loaded.print.profileResultId, loaded.print.curvesResultId].filter((id) => id !== null);
  return unitOfWork(context, async ({ database }) => {
    const { id } = await insertResult(
      database,
      {
        conditionId: loaded.print.conditionId,
        ...toStore(AIM_CHECK, { summary, detail }),
        verdict: check.verdict,
        madeMs: detail.header.madeMs,
        validDays: chosen.everyDays,
      },
      { readings: [readingId], results: sources },
    );
    return { id };
  });
}

/** The same for a reading of a certain condition. */
export async function judgeReadingOf(
  context: Context,
  conditionId: number,
  readingId: number,
  choice: CheckChoice,
): Promise<{ readonly id: number }> {
  await completeReading(context, conditionId, readingId);
  return judgeReading(context, readingId, choice);
}
