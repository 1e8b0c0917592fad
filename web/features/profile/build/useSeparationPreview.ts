'use client';

import { READING_PATCHES } from '@/endpoints/reading';
import { wrap } from 'comlink';
import type { Remote } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import type { Process } from '@melto/core/device/process';
import type { SeparationCost } from '@melto/core/separate/separationCost';
import type { SeparationPreview } from '@melto/core/separate/separationPreview';
import type { Separation } from '@melto/core/separate/separation';
import type { SeparationWorker } from '@/workers/separation.worker';
import { ask, problemWords } from '@/ui/api';

export interface PreviewState {
  /** What is shown; undefined until the model is fitted. */
  readonly preview?: SeparationPreview & { readonly tookMs: number };
  /** Lab of the solids. */
  readonly solids?: Float64Array;
  readonly problem?: string;
  readonly takePictures: (pixels: readonly Uint8ClampedArray[]) => void;
  /** What some separations cost over the pictures; undefined before the model is fitted. */
  readonly costs: (
    separations: readonly Separation[],
    variation: number,
  ) => Promise<readonly SeparationCost[]> | undefined;
  /** Grows with each set of pictures. */
  readonly pictures: number;
}

/** Fits the readings in a worker, then keeps the preview up with the separation: the newest wish only is worked out. */
export function useSeparationPreview(
  process: Process,
  readingIds: readonly number[],
  separation: Separation,
  hueDeg: number,
): PreviewState {
  const remote = useRef<Remote<SeparationWorker>>(undefined);
  const [solids, setSolids] = useState<Float64Array>();
  const [preview, setPreview] = useState<PreviewState['preview']>();
  const [problem, setProblem] = useState<string>();
  const [pictures, setPictures] = useState(0);
  const waiting = useRef<{ readonly separation: Separation; readonly hueDeg: number }>(undefined);
  const busy = useRef(false);
  const key = readingIds.join();
  const channels = JSON.stringify(process);

  useEffect(() => {
    const worker = new Worker(new URL('../../../workers/separation.worker.ts', import.meta.url), {
      type: 'module',
    });
    remote.current = wrap<SeparationWorker>(worker);
    return () => {
      remote.current = undefined;
      busy.current = false;
      worker.terminate();
    };
  }, []);

  useEffect(() => {
    let left = false;
    setSolids(undefined);
    const fit = async (): Promise<void> => {
      const parts = await Promise.all(
        key.split(',').map((id) => ask(READING_PATCHES, { params: { id: Number(id) } })),
      );
      const found = await remote.current?.fit(
        JSON.parse(channels) as Process,
        Float64Array.from(parts.flatMap(({ device }) => device)),
        Float64Array.from(parts.flatMap(({ xyz }) => xyz)),
      );
      if (!left) setSolids(found);
    };
    fit().catch((error: unknown) => {
      if (!left) setProblem(problemWords(error));
    });
    return () => {
      left = true;
    };
  }, [key, channels]);

  const wish = JSON.stringify(separation);
  useEffect(() => {
    if (solids === undefined) return;
    waiting.current = { separation: JSON.parse(wish) as Separation, hueDeg };
    const run = async (): Promise<void> => {
      if (busy.current) return;
      busy.current = true;
      while (waiting.current !== undefined && remote.current !== undefined) {
        const next = waiting.current;
        waiting.current = undefined;
        setPreview(await remote.current.preview(next.separation, next.hueDeg));
      }
      busy.current = false;
    };
    run().catch(() => {
      busy.current = false;
    });
  }, [wish, hueDeg, solids, pictures]);

  return {
    preview,
    solids,
    problem,
    pictures,
    takePictures: (pixels) => {
      void remote.current?.takePictures(pixels).then(() => setPictures((count) => count + 1));
    },
    costs: (separations, variation) => remote.current?.costs(separations, variation),
  };
}
