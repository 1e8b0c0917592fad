import { countConditions } from '@melto/store/conditions';
import { findHouse, setSample } from '@melto/store/houses';
import { findWaitingJob, insertJob } from '@melto/store/jobs';
import { lockSetting } from '@melto/store/settings';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';

/** The kind of job that loads the sample house. */
export const SAMPLE_HOUSE = 'sample-house';

/** The sample house is made with simulated devices. */
export function offersSampleHouse({ catalogue }: Pick<Context, 'catalogue'>): boolean {
  return catalogue.length > 0;
}

/** Asks for the sample house, which an empty house becomes; one that is being loaded serves. */
export async function requestSampleHouse(context: Context): Promise<{ readonly jobId: number }> {
  if (!offersSampleHouse(context))
    throw new Problem(
      'not-ready',
      'The sample house needs the simulated devices, which are left out here.',
      'Start Melto with its simulator to look at it.',
    );
  return unitOfWork(context, async ({ database }) => {
    await lockSetting(database, SAMPLE_HOUSE, '');
    const waiting = await findWaitingJob(database, SAMPLE_HOUSE);
    if (waiting !== undefined) return { jobId: waiting };
    const house = await findHouse(database);
    if (house?.sample !== true && (await countConditions(database)) > 0)
      throw new Problem(
        'conflict',
        'This house has conditions of its own.',
        'The sample house is loaded into an empty house only.',
      );
    await setSample(database, true);
    const job = { kind: SAMPLE_HOUSE, lane: 'long', conditionId: null, input: {} } as const;
    return { jobId: await insertJob(database, job, context.now()) };
  });
}
