'use client';

import { useQuery } from '@tanstack/react-query';
import { wrap } from 'comlink';
import type { ProfileInspection } from '@melto/core/profile/inspectProfile';
import type { ProfileSource } from '@/features/profiles/profileSource';
import type { InspectionWorker } from '@/workers/inspection.worker';

/** What is said of a profile, worked out in a worker of its own. */
export function useInspection(source: ProfileSource | undefined) {
  return useQuery({
    queryKey: ['inspection', source?.key],
    queryFn: async (): Promise<ProfileInspection & { readonly bytes: number }> => {
      if (source === undefined) throw new Error('no profile is chosen');
      const bytes = await source.bytes();
      const worker = new Worker(new URL('../../workers/inspection.worker.ts', import.meta.url), {
        type: 'module',
      });
      try {
        const found = await wrap<InspectionWorker>(worker).inspect(source.label, bytes);
        if (typeof found === 'string') throw new Error(found);
        return { ...found, bytes: bytes.length };
      } finally {
        worker.terminate();
      }
    },
    enabled: source !== undefined,
    staleTime: Infinity,
    retry: false,
  });
}
