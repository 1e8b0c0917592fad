'use client';

import { useQuery } from '@tanstack/react-query';
import type { Remote } from 'comlink';
import type { DrawnComparison, GamutWorker } from '@/workers/gamut.worker';
import type { ProfileSource } from '@/features/profiles/profileSource';

/** Compares two bodies in the worker, with others beside them; its error says in words what could not be read. */
export function useComparison(
  worker: Remote<GamutWorker> | undefined,
  a: ProfileSource | undefined,
  b: ProfileSource | undefined,
  more: readonly ProfileSource[],
) {
  return useQuery({
    queryKey: ['gamut', a?.key, b?.key, ...more.map(({ key }) => key)],
    queryFn: async (): Promise<DrawnComparison> => {
      if (worker === undefined || a === undefined || b === undefined) throw new Error('nothing to compare');
      const refused = (
        await Promise.all(
          [a, b, ...more].map(async (source) => worker.load(source.key, source.label, await source.bytes())),
        )
      ).find((words) => words !== undefined);
      if (refused !== undefined) throw new Error(refused);
      const answer = await worker.compare(
        a.key,
        b.key,
        more.map(({ key }) => key),
      );
      if (typeof answer === 'string') throw new Error(answer);
      return answer;
    },
    enabled: worker !== undefined && a !== undefined && b !== undefined,
    staleTime: Infinity,
    // The worker knows one comparison only, the last one.
    gcTime: 0,
    retry: false,
  });
}
