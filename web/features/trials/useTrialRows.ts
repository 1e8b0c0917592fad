'use client';

import { useQueries } from '@tanstack/react-query';
import type { PaperTrial } from '@melto/services/house/paperTrials';
import { SHEET_BRIGHTENER } from '@/endpoints/light';
import { READING_PATCHES } from '@/endpoints/reading';
import { ask, problemWords } from '@/ui/api';
import { useRemoteWorker } from '@/ui/useRemoteWorker';
import type { TrialWorker } from '@/workers/trial.worker';
import type { TrialRow } from './trialColumns';

const start = (): Worker =>
  new Worker(new URL('../../workers/trial.worker.ts', import.meta.url), { type: 'module' });

/** The stocks of a trial with their figures, as far as they are worked out; and what went wrong. */
export function useTrialRows({ prints, process }: PaperTrial): {
  readonly rows: readonly TrialRow[];
  readonly waiting: number;
  readonly problem: string | undefined;
} {
  const worker = useRemoteWorker<TrialWorker>(start);
  const figures = useQueries({
    queries: prints.map(({ readingId }) => ({
      queryKey: ['trial figures', readingId],
      queryFn: async () => {
        const { device, xyz } = await ask(READING_PATCHES, { params: { id: readingId ?? 0 } });
        const made = await worker?.figures(process, device, xyz);
        if (typeof made === 'string') throw new Error(made);
        return made ?? null;
      },
      enabled: readingId !== null && worker !== undefined,
      retry: false,
      staleTime: Infinity,
    })),
  });
  const brightener = useQueries({
    queries: prints.map(({ readingId, darkReadingId }) => ({
      queryKey: ['brightener', readingId, darkReadingId],
      queryFn: () => ask(SHEET_BRIGHTENER, { params: { id: readingId ?? 0 } }),
      enabled: readingId !== null && darkReadingId !== null,
      retry: false,
      staleTime: Infinity,
    })),
  });
  const failed = figures.find(({ error }) => error !== null)?.error;
  return {
    rows: prints.map((print, i) => ({
      print,
      figures: figures[i].data ?? undefined,
      brightened: brightener[i].data?.paper?.b,
    })),
    waiting: prints.filter(
      ({ readingId }, i) => readingId !== null && figures[i].data === undefined && figures[i].error === null,
    ).length,
    problem: failed === undefined || failed === null ? undefined : problemWords(failed),
  };
}
