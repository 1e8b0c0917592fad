import { loadSampleHouse } from '@melto/demo/sampleHouse';
import { PAPER_TRIAL, workPaperTrial } from '@melto/services/house/paperTrials';
import { QUICK_HANDLERS } from '@melto/services/judging/judge';
import type { JobHandler, JobHandlers } from '@melto/services/kernel/jobs';
import { buildProfile } from '@melto/services/profile/buildProfile';
import { MAKE_CHART, makeChart } from '@melto/services/profile/chartJobs';
import { BUILD_PROFILE } from '@melto/services/profile/requestProfile';
import { SAMPLE_HOUSE } from '@melto/services/simulated/sampleHouse';

const LONG_HANDLERS: readonly (readonly [string, JobHandler])[] = [
  [
    BUILD_PROFILE,
    (context, input, onProgress) =>
      buildProfile(context, input as Parameters<typeof buildProfile>[1], onProgress),
  ],
  [
    MAKE_CHART,
    (context, input, onProgress) => makeChart(context, input as Parameters<typeof makeChart>[1], onProgress),
  ],
  [
    PAPER_TRIAL,
    (context, input, onProgress) =>
      workPaperTrial(context, input as Parameters<typeof workPaperTrial>[1], onProgress),
  ],
  [
    SAMPLE_HOUSE,
    async (context, _, onProgress) => {
      await loadSampleHouse(context, onProgress);
      return async () => undefined;
    },
  ],
];

/** One handler for each kind of job. */
export const HANDLERS: JobHandlers = new Map([...QUICK_HANDLERS, ...LONG_HANDLERS]);
