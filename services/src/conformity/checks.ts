import { insertResult } from '@melto/store/results';
import { LOCAL_PERSON } from '../kernel/context.ts';
import type { Services } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { completeReading, loadReading } from '../reading/readings.ts';
import { judgedByOf } from './checkChoice.ts';
import type { CheckChoice } from './checkChoice.ts';
import { checkDetail } from './checkDetail.ts';

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

/** Judges a reading by what was chosen when its wedge was printed, or anew. */
export async function judgeReading(
  services: Services,
  readingId: number,
  choice?: CheckChoice,
): Promise<{ readonly id: number }> {
  const loaded = await loadReading(services, readingId);
  if (loaded.reading.finishedMs === null)
    throw new Problem('not-ready', 'The reading is not complete.', 'Read the strips that are missing first.');
  if (loaded.reading.withdrawnMs !== null)
    throw new Problem(
      'conflict',
      'This reading was withdrawn.',
      'Take it back, or choose another.',
      'readingId',
    );
  const before = judgedByOf(loaded);
  const chosen = choice ?? before;
  if (chosen === undefined)
    throw new Problem(
      'bad-input',
      'This print was made for no aims.',
      'Choose aims and tolerances.',
      'aimSetId',
    );
  const { detail, check } = await checkDetail(services, loaded, chosen, before);
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
  return services.database.transaction(async (sql) => {
    const { id } = await insertResult(
      sql,
      {
        conditionId: loaded.print.conditionId,
        link: 'conformity',
        verdict: check.verdict,
        summary,
        detail,
        madeMs: detail.header.madeMs,
      },
      { readings: [readingId], results: sources },
      LOCAL_PERSON,
    );
    return { id };
  });
}

/** The same for a reading of a certain condition. */
export async function judgeReadingOf(
  services: Services,
  conditionId: number,
  readingId: number,
  choice: CheckChoice,
): Promise<{ readonly id: number }> {
  await completeReading(services, conditionId, readingId);
  return judgeReading(services, readingId, choice);
}
