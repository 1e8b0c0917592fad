'use client';

import { useQuery } from '@tanstack/react-query';
import type { Remote } from 'comlink';
import type { ProfileInspection } from '@melto/core/profile/inspectProfile';
import type { ProfileSource } from '@/features/profiles/profileSource';
import type { InspectionWorker } from '@/workers/inspection.worker';

/** What is said of a profile, worked out in a worker. */
export function useInspection(worker: Remote<InspectionWorker> | undefined, source: ProfileSource) {
  return useQuery({
    queryKey: ['inspection', source.key],
    queryFn: async (): Promise<ProfileInspection & { readonly bytes: number }> => {
      if (worker === undefined) throw new Error('the worker is not there yet');
      const bytes = await source.bytes();
      const found = await worker.inspect(source.label, bytes);
      if (typeof found === 'string') throw new Error(found);
      return { ...found, bytes: bytes.length };
    },
    enabled: worker !== undefined,
    staleTime: Infinity,
    retry: false,
  });
}
