'use client';

import type { Remote } from 'comlink';
import { useEffect, useState } from 'react';
import type { ProfileSource } from '@/features/profiles/profileSource';
import { problemWords } from '@/ui/api';
import type { InspectionWorker, SliceCut } from '@/workers/inspection.worker';
import type { SlicePicture } from '@/workers/slicePictures';

/** Pictures of a table where it is cut now; the last ones stay until the next are there. */
export function useSlices({
  worker,
  source,
  intent,
  cut,
}: {
  worker: Remote<InspectionWorker>;
  source: ProfileSource;
  intent: number;
  cut: SliceCut;
}) {
  const [pictures, setPictures] = useState<readonly SlicePicture[]>([]);
  const [problem, setProblem] = useState<string>();
  useEffect(() => {
    let left = false;
    const run = async (): Promise<void> => {
      const made = await worker.slice(source.label, await source.bytes(), intent, cut);
      if (left) return;
      if (typeof made === 'string') setProblem(made);
      else {
        setProblem(undefined);
        setPictures(made);
      }
    };
    run().catch((error: unknown) => {
      if (!left) setProblem(problemWords(error));
    });
    return () => {
      left = true;
    };
  }, [worker, source, intent, cut]);
  return { pictures, problem };
}
