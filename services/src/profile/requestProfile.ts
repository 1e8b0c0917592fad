import { leastPatches } from '@melto/core/characterise/leastPatches';
import { channelCount, drivenByInks } from '@melto/core/device/process';
import { insertJob } from '@melto/store/jobs';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { conditionOf } from '../ledger/conditions.ts';
import type { ProfileChoices } from '../ledger/kinds/profileKind.ts';
import { LINKS } from '../ledger/links.ts';
import { completeReading } from '../reading/loadReading.ts';
import { checkAdded, pooledReadings } from './pooledReadings.ts';

export const BUILD_PROFILE = 'build-profile';

export const DEFAULT_SEPARATION = { black: 'medium', totalInk: 3 } as const;

export async function requestProfile(
  context: Context,
  conditionId: number,
  choices: ProfileChoices,
): Promise<{ readonly jobId: number }> {
  const { process, device } = await conditionOf(context, conditionId);
  const loaded = await completeReading(context, conditionId, choices.readingId);
  const least = leastPatches(process);
  if (!LINKS.profile.suits(process))
    throw new Problem(
      'bad-input',
      `${device} prints ${process.name}; profiles are of RGB, of CMYK, or of these four and up to four other inks.`,
      'Choose another condition.',
    );
  if (loaded.chart.purpose !== 'profile' || loaded.rows.length < least)
    throw new Problem(
      'bad-input',
      `A profile needs a profiling chart of at least ${least} patches.`,
      'Choose a reading of a profiling chart.',
      'readingId',
    );
  const limits = choices.separation?.inkLimits;
  if (drivenByInks(process) && limits !== undefined && limits.length !== channelCount(process))
    throw new Problem(
      'bad-input',
      `${device} has ${channelCount(process)} inks, and limits of ${limits.length} were given.`,
      'Give the most of each ink.',
      'separation',
    );
  for (const { inks } of choices.separation?.pairLimits ?? [])
    if (inks[0] === inks[1] || Math.max(...inks) >= channelCount(process))
      throw new Problem(
        'bad-input',
        `A pair is of two of the ${channelCount(process)} inks; ${inks.join(' and ')} were given.`,
        'Give two of them, counted from 0.',
        'separation',
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
