'use client';

import { useEffect, useState } from 'react';
import type { PlacedList } from '@melto/core/proof/placeList';
import type { NamedColour } from '@melto/core/refine/namedColour';
import type { ProfileSource } from '@/features/profiles/profileSource';
import { problemWords } from '@/ui/api';
import { useRemoteWorker } from '@/ui/useRemoteWorker';
import type { ListWorker } from '@/workers/list.worker';

// The address stands where the bundler finds it.
const start = (): Worker =>
  new Worker(new URL('../../workers/list.worker.ts', import.meta.url), { type: 'module' });

/** What a list comes to on one device, or why it is not known. */
export type PlacedOn = { readonly key: string } & (
  { readonly placed: PlacedList } | { readonly problem: string }
);

/** Lays a list on one device after the other; what is there is shown, while the rest is worked out. */
export function usePlacedList(
  colours: readonly NamedColour[],
  sources: readonly ProfileSource[],
): readonly PlacedOn[] {
  const worker = useRemoteWorker<ListWorker>(start);
  const [found, setFound] = useState<readonly PlacedOn[]>([]);
  useEffect(() => {
    let left = false;
    setFound([]);
    if (worker === undefined || colours.length === 0) return undefined;
    const lab = Float64Array.from(colours.flatMap((colour) => [...colour.lab]));
    const placeOn = async ({ key, label, bytes }: ProfileSource): Promise<PlacedOn> => {
      try {
        const answer = await worker.place(label, await bytes(), lab);
        return typeof answer === 'string' ? { key, problem: answer } : { key, placed: answer };
      } catch (error) {
        return { key, problem: problemWords(error) };
      }
    };
    const run = async (): Promise<void> => {
      for (const source of sources) {
        if (left) return;
        const one = await placeOn(source);
        if (left) return;
        setFound((before) => [...before, one]);
      }
    };
    void run();
    return () => {
      left = true;
    };
  }, [worker, colours, sources]);
  return found;
}
