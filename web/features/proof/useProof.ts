'use client';

import type { Remote } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import type { ProofOverlay } from '@melto/core/proof/bakedProof';
import type { SamplePicture } from '@melto/core/proof/samplePicture';
import type { ProofChoice } from '@melto/core/proof/softProof';
import type { ProfileSource } from '@/features/profiles/profileSource';
import { problemWords } from '@/ui/api';
import type {
  Drawn,
  DrawnProof,
  GivenProfile,
  ProofPoint,
  ProofWorker,
  RankedProof,
} from '@/workers/proof.worker';
import { EMBEDDED } from './openPicture';
import type { OpenedPicture } from './openPicture';

const RANKING_WAITS_MS = 300;

interface ProofAsked {
  readonly picture: OpenedPicture;
  readonly source: ProfileSource | undefined;
  readonly device: ProfileSource | undefined;
  /** Of the same device, for the light that its print is seen in, where that is another. */
  readonly seenBy: ProfileSource | undefined;
  readonly ranked: readonly ProfileSource[];
  readonly choice: ProofChoice;
  readonly overlay: ProofOverlay;
}

/** Keeps the proof up with what is asked: the newest wish only is worked out. */
export function useProof(worker: Remote<ProofWorker> | undefined, asked: ProofAsked) {
  const { picture, source, device, seenBy, choice, overlay } = asked;
  const [before, setBefore] = useState<Drawn>();
  const [after, setAfter] = useState<DrawnProof>();
  const [ranked, setRanked] = useState<readonly RankedProof[]>([]);
  const [point, setPoint] = useState<ProofPoint>();
  const [problem, setProblem] = useState<string>();
  const busy = useRef(false);
  /** Proofs are drawn one after the other: what was wished meanwhile and is no longer wished is left out. */
  const drawing = useRef(Promise.resolve());
  const latest = useRef(asked);
  latest.current = asked;
  useEffect(() => {
    let left = false;
    setBefore(undefined);
    setAfter(undefined);
    setRanked([]);
    setPoint(undefined);
    if (worker === undefined || source === undefined) return undefined;
    const run = async (): Promise<void> => {
      const { file, width, height, name } = picture;
      if (file === undefined) await worker.openSample(name as SamplePicture, width, height);
      else await worker.openPicture({ width, height, channels: file.channels, values: file.values });
      const drawn = await worker.before(
        keyOf(source, picture),
        source.label,
        await source.bytes(),
        choice.screen ?? 'srgb',
      );
      if (left) return;
      if (typeof drawn === 'string') setProblem(drawn);
      else {
        setProblem(undefined);
        setBefore(drawn);
      }
    };
    run().catch((error: unknown) => {
      if (!left) setProblem(problemWords(error));
    });
    return () => {
      left = true;
    };
  }, [worker, picture, source, choice.screen]);
  useEffect(() => {
    let left = false;
    if (worker === undefined || before === undefined || device === undefined) return undefined;
    const run = async (): Promise<void> => {
      const [printed, seen] = await Promise.all([
        given(device),
        seenBy === undefined ? undefined : given(seenBy),
      ]);
      if (left) return;
      const drawn = await worker.proof({ ...printed, choice, seenBy: seen }, overlay);
      if (left) return;
      if (typeof drawn === 'string') {
        setAfter(undefined);
        setProblem(drawn);
      } else {
        setProblem(undefined);
        setAfter(drawn);
      }
    };
    drawing.current = drawing.current
      .then(() => (left ? undefined : run()))
      .catch((error: unknown) => {
        if (!left) setProblem(problemWords(error));
      });
    return () => {
      left = true;
    };
  }, [worker, before, device, seenBy, choice, overlay]);
  useEffect(() => {
    let left = false;
    if (worker === undefined || before === undefined) return undefined;
    const run = async (): Promise<void> => {
      setRanked([]);
      for (const each of latest.current.ranked) {
        const printed = await given(each);
        if (left) return;
        const one = await worker.rank({ ...printed, choice });
        if (left) return;
        if (typeof one !== 'string') setRanked((known) => [...known, one]);
      }
    };
    // While a slider is moved the picture is what counts.
    const soon = setTimeout(() => {
      run().catch((error: unknown) => {
        if (!left) setProblem(problemWords(error));
      });
    }, RANKING_WAITS_MS);
    return () => {
      left = true;
      clearTimeout(soon);
    };
  }, [worker, before, choice]);
  const pointAt = (at: { readonly x: number; readonly y: number } | undefined): void => {
    if (at === undefined || worker === undefined || busy.current) return;
    busy.current = true;
    void worker.at(at.x, at.y).then((found) => {
      busy.current = false;
      setPoint(found);
    });
  };
  return { before, after, ranked, point, problem, pointAt };
}

/** A picture's own profile is another one for each picture. */
const keyOf = (source: ProfileSource, picture: OpenedPicture): string =>
  source.key === EMBEDDED ? (picture.file?.iccKey ?? EMBEDDED) : source.key;

/** A profile as the worker takes it. */
export const given = async ({ key, label, bytes }: ProfileSource): Promise<GivenProfile> => ({
  ...{ key, name: label },
  bytes: await bytes(),
});
