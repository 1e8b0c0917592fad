import { CMYK, RGB } from '@melto/core/device/process';
import { insertJob } from '@melto/store/jobs';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { conditionOf } from '../ledger/conditions.ts';
import type { ProfileChoices } from '../ledger/kinds/profileKind.ts';
import { LINKS } from '../ledger/links.ts';
import { completeReading } from '../reading/loadReading.ts';
import { checkAdded, pooledReadings } from './pooledReadings.ts';

export const BUILD_PROFILE = 'build-profile';

/** Least number of patches that can carry a model, by the process. */
const LEAST_PATCHES: Readonly<Record<string, number>> = { [RGB.name]: 40, [CMYK.name]: 150 };
export const DEFAULT_SEPARATION = { black: 'medium', totalInk: 3 } as const;

export async function requestProfile(
  context: Context,
  conditionId: number,
  choices: ProfileChoices,
): Promise<{ readonly jobId: number }> {
  const { process, device } = await conditionOf(context, conditionId);
  const loaded = await completeReading(context, conditionId, choices.readingId);
  const least = LEAST_PATCHES[process.name];
  if (!LINKS.profile.suits(process) || least === undefined)
    throw new Problem(
      'bad-input',
      `${device} prints ${process.name}; profiles are of RGB or CMYK so far.`,
      'Choose another condition.',
    );
  if (loaded.chart.purpose !== 'profile' || loaded.rows.length < least)
    throw new Problem(
      'bad-input',
      `A profile needs a profiling chart of at least ${least} patches.`,
      'Choose a reading of a profiling chart.',
      'readingId',
    );
  for (const added of choices.addedReadingIds ?? [])
    checkAdded(loaded, await completeReading(context, conditionId, added));
  for (const without of choices.light?.uv?.withoutReadingIds ?? [])
    await completeReading(context, conditionId, without);
  // What the job would refuse is refused here, before anybody waits for it.
  if (choices.light !== undefined)
    await pooledReadings(context, choices.readingId, choices.addedReadingIds, choices.light);
  const job = { kind: BUILD_PROFILE, lane: 'long', conditionId, input: { conditionId, choices } } as const;
  return { jobId: await insertJob(context.database, job, context.now()) };
}
