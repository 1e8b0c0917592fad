import { loadSampleHouse } from '@melto/demo/sampleHouse';
import { MAKE_CHART, makeChart } from '@melto/services/profile/chartJobs';
import { SAMPLE_HOUSE } from '@melto/services/kernel/jobs';
import type { JobHandler } from '@melto/services/kernel/jobs';
import { buildProfile } from '@melto/services/profile/buildProfile';
import { BUILD_PROFILE } from '@melto/services/profile/profiles';

/** One handler for each kind of job. */
export const HANDLERS: ReadonlyMap<string, JobHandler> = new Map<string, JobHandler>([
  [
    BUILD_PROFILE,
    (services, input, onProgress) =>
      buildProfile(services, input as Parameters<typeof buildProfile>[1], onProgress),
  ],
  [
    MAKE_CHART,
    (services, input, onProgress) =>
      makeChart(services, input as Parameters<typeof makeChart>[1], onProgress),
  ],
  [
    SAMPLE_HOUSE,
    async (services, _, onProgress) => {
      await loadSampleHouse(services, onProgress);
      return async () => undefined;
    },
  ],
]);
