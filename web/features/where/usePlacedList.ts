'use client';

import type { Remote } from 'comlink';
import { useEffect, useMemo, useState } from 'react';
import type { PlacedList, PrintedColour } from '@melto/core/proof/placeList';
import type { PlacedPictures } from '@melto/core/proof/placePictures';
import type { NamedColour } from '@melto/core/refine/namedColour';
import type { ProfileSource } from '@/features/profiles/profileSource';
import type { PagePicture } from './openPage';
import { problemWords } from '@/ui/api';
import { useRemoteWorker } from '@/ui/useRemoteWorker';
import type { ListWorker } from '@/workers/list.worker';

// The address stands where the bundler finds it.
const start = (): Worker =>
  new Worker(new URL('../../workers/list.worker.ts', import.meta.url), { type: 'module' });

/** What works lists out; undefined before it is there. */
export const useListWorker = (): Remote<ListWorker> | undefined => useRemoteWorker<ListWorker>(start);

const rows = (colours: readonly NamedColour[]): Float64Array =>
  Float64Array.from(colours.flatMap((colour) => [...colour.lab]));

/** What a job comes to on one device, or why it is not known. */
export type PlacedOn<Placed> = { readonly key: string } & (
  | { readonly placed: Placed }
  | { readonly problem: string }
);

/** Lays a list on one device after the other; what is there is shown, while the rest is worked out. */
export function usePlacedList(
  worker: Remote<ListWorker> | undefined,
  colours: readonly NamedColour[],
  sources: readonly ProfileSource[],
): readonly PlacedOn<PlacedList>[] {
  const place = useMemo(() => {
    if (worker === undefined || colours.length === 0) return undefined;
    const lab = rows(colours);
    return (label: string, bytes: Uint8Array) => worker.place(label, bytes, lab);
  }, [worker, colours]);
  return usePlaced(place, sources);
}

/** The same for the pictures that are open in the worker. */
export function usePlacedPage(
  worker: Remote<ListWorker> | undefined,
  page: readonly PagePicture[],
  sources: readonly ProfileSource[],
): readonly PlacedOn<PlacedPictures>[] {
  const place = useMemo(
    () =>
      worker === undefined || page.length === 0
        ? undefined
        : (label: string, bytes: Uint8Array) => worker.placePage(label, bytes),
    [worker, page],
  );
  return usePlaced(place, sources);
}

function usePlaced<Placed extends object>(
  /** The same function for as long as the job is. */
  place: ((label: string, bytes: Uint8Array) => Promise<Placed | string>) | undefined,
  sources: readonly ProfileSource[],
): readonly PlacedOn<Placed>[] {
  const [found, setFound] = useState<readonly PlacedOn<Placed>[]>([]);
  useEffect(() => {
    let left = false;
    setFound([]);
    if (place === undefined) return undefined;
    const placeOn = async ({ key, label, bytes }: ProfileSource): Promise<PlacedOn<Placed>> => {
      try {
        const answer = await place(label, await bytes());
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
  }, [place, sources]);
  return found;
}

/** Colours that are looked for at once, so that what is there is shown. */
const AT_ONCE = 50;

/** What comes nearest to the colours of a list on one device; what is not found yet is undefined. */
export function useNearest(
  worker: Remote<ListWorker> | undefined,
  colours: readonly NamedColour[],
  source: ProfileSource | undefined,
): readonly (PrintedColour | undefined)[] {
  const [found, setFound] = useState<readonly PrintedColour[]>([]);
  useEffect(() => {
    let left = false;
    setFound([]);
    if (worker === undefined || source === undefined) return undefined;
    const run = async (): Promise<void> => {
      const bytes = await source.bytes();
      for (let at = 0; at < colours.length && !left; at += AT_ONCE) {
        const some = await worker.nearest(source.label, bytes, rows(colours.slice(at, at + AT_ONCE)));
        // What is wrong with the profile is said where the list is laid on it.
        if (left || typeof some === 'string') return;
        setFound((before) => [...before, ...some]);
      }
    };
    run().catch(() => undefined);
    return () => {
      left = true;
    };
  }, [worker, colours, source]);
  return found;
}
