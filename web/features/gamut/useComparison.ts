'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { Remote } from 'comlink';
import type { DrawnComparison, DrawnReach, GamutWorker } from '@/workers/gamut.worker';
import type { ProfileSource } from '@/features/profiles/profileSource';

/**
 * Has two bodies drawn by the worker, with others beside them: those before stay until they are there, and how far they
 * reach beyond each other comes after them. Its error says in words what could not be read.
 */
export function useComparison(
  worker: Remote<GamutWorker> | undefined,
  a: ProfileSource | undefined,
  b: ProfileSource | undefined,
  more: readonly ProfileSource[],
) {
  const keys = [a?.key, b?.key, ...more.map(({ key }) => key)];
  const drawn = useQuery({
    queryKey: ['gamut', ...keys],
    queryFn: async (): Promise<DrawnComparison> => {
      if (worker === undefined || a === undefined || b === undefined) throw new Error('nothing to compare');
      const refused = (
        await Promise.all(
          [a, b, ...more].map(async (source) => worker.load(source.key, source.label, await source.bytes())),
        )
      ).find((words) => words !== undefined);
      if (refused !== undefined) throw new Error(refused);
      const answer = await worker.draw(
        a.key,
        b.key,
        more.map(({ key }) => key),
      );
      if (typeof answer === 'string') throw new Error(answer);
      return answer;
    },
    enabled: worker !== undefined && a !== undefined && b !== undefined,
    ...LAST_ONLY,
    placeholderData: keepPreviousData,
  });
  const reach = useQuery({
    queryKey: ['gamut reach', ...keys],
    queryFn: async (): Promise<DrawnReach | null> => (await worker?.reach()) ?? null,
    enabled: drawn.data !== undefined && !drawn.isPlaceholderData,
    ...LAST_ONLY,
  });
  return { ...drawn, reach: drawn.isPlaceholderData ? undefined : (reach.data ?? undefined) };
}

/** The worker knows the bodies only that it drew last. */
const LAST_ONLY = { staleTime: Infinity, gcTime: 0, retry: false } as const;
