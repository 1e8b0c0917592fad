'use client';

import type { Remote } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import type { ProofOverlay } from '@melto/core/proof/bakedProof';
import type { SamplePicture } from '@melto/core/proof/samplePicture';
import type { ProofChoice } from '@melto/core/proof/softProof';
import type { ProfileSource } from '@/features/profiles/profileSource';
import { problemWords } from '@/ui/api';
import type {
  AskedProof,
  BakedPrint,
  Drawn,
  DrawnProof,
  GivenProfile,
  ProofedPicture,
  ProofFigures,
  ProofPoint,
  ProofWorker,
  RankedProof,
} from '@/workers/proof.worker';
import { EMBEDDED } from './openPicture';
import type { OpenedPicture } from './openPicture';

/** While a slider is moved the picture is what counts: how long it rests before the fine proof, its figures and the others. */
const RESTS_MS = 120;
const RANKING_WAITS_MS = 300;

interface ProofAsked {
  readonly picture: OpenedPicture;
  readonly source: ProfileSource | undefined;
  readonly device: ProfileSource | undefined;
  /** Of the same device, for the light that its print is seen in, where that is another. */
  readonly seenBy: ProfileSource | undefined;
  /** Of the screen, where values go to it as they are. */
  readonly monitor: ProfileSource | undefined;
  readonly ranked: readonly ProfileSource[];
  readonly choice: ProofChoice;
  readonly overlay: ProofOverlay;
  /** Whether a GPU draws the print; undefined until that is known. */
  readonly gpu: boolean | undefined;
}

/** Keeps the proof up with what is asked: the newest wish only is worked out. */
export function useProof(worker: Remote<ProofWorker> | undefined, asked: ProofAsked) {
  const { picture, source, device, seenBy, choice, gpu } = asked;
  const { monitor, screenProblem } = useMonitor(worker, asked.monitor);
  const [before, setBefore] = useState<Drawn>();
  const [opened, setOpened] = useState<ProofedPicture>();
  const [after, setAfter] = useState<DrawnProof | BakedPrint>();
  const [figures, setFigures] = useState<ProofFigures>();
  const [ranked, setRanked] = useState<readonly RankedProof[]>([]);
  const [point, setPoint] = useState<ProofPoint>();
  const [problem, setProblem] = useState<string>();
  const busy = useRef(false);
  /** The picture that is seen. */
  const shown = useRef<OpenedPicture>(undefined);
  /** Proofs are worked out one after the other: what was wished meanwhile and is no longer wished is left out. */
  const drawing = useRef(Promise.resolve());
  const latest = useRef(asked);
  latest.current = asked;
  // A GPU lays over the print what is to be seen there by itself.
  const overlay = gpu === true ? 'none' : asked.overlay;
  useEffect(() => {
    let left = false;
    const forget = (): void => {
      setBefore(undefined);
      setAfter(undefined);
      setFigures(undefined);
      setRanked([]);
    };
    setPoint(undefined);
    // The same picture stays, with all that is chosen beside it, until it is drawn anew.
    if (shown.current !== picture || source === undefined) forget();
    if (worker === undefined || source === undefined) return undefined;
    const run = async (): Promise<void> => {
      const values = await openIn(worker, picture);
      const [own, shownBy] = await Promise.all([
        given(worker, { ...source, key: keyOf(source, picture) }),
        monitor && given(worker, monitor),
      ]);
      const drawn = await worker.before(own, choice.screen ?? 'srgb', shownBy);
      if (left) return;
      if (typeof drawn === 'string') {
        forget();
        setProblem(drawn);
      } else {
        setProblem(undefined);
        shown.current = picture;
        setOpened(values);
        setBefore(drawn);
      }
    };
    run().catch((error: unknown) => {
      if (left) return;
      forget();
      setProblem(problemWords(error));
    });
    return () => {
      left = true;
    };
  }, [worker, picture, source, monitor, choice.screen]);
  useEffect(() => {
    const wish = { left: false };
    let resting: ReturnType<typeof setTimeout> | undefined;
    if (worker === undefined || before === undefined || device === undefined || gpu === undefined)
      return undefined;
    /** Shows what was worked out, or says why it was not. */
    const show = (drawn: DrawnProof | BakedPrint | string | undefined): void => {
      if (wish.left || drawn === undefined) return;
      setProblem(typeof drawn === 'string' ? drawn : undefined);
      setAfter(typeof drawn === 'string' ? undefined : drawn);
    };
    const unwished = (): boolean => wish.left;
    const failed = (error: unknown): void => {
      if (!wish.left) setProblem(problemWords(error));
    };
    const fine = async (sent: AskedProof): Promise<void> => {
      show(await worker.bake(sent, 'fine'));
      if (unwished()) return;
      const sums = await worker.figures(sent);
      if (unwished()) return;
      if (typeof sums !== 'string') setFigures(sums);
      show(await worker.bake(sent, 'finest'));
    };
    const work = async (): Promise<void> => {
      if (unwished()) return;
      const sent = await sentTo(worker, { device, choice, seenBy, monitor });
      if (unwished()) return;
      if (gpu) {
        show(await worker.bake(sent, 'coarse'));
        if (!unwished()) resting = setTimeout(() => void fine(sent).catch(failed), RESTS_MS);
        return;
      }
      const drawn = await worker.proof(sent, overlay);
      show(drawn);
      if (!unwished() && typeof drawn !== 'string') setFigures(drawn.figures);
    };
    drawing.current = drawing.current.then(work).catch(failed);
    return () => {
      wish.left = true;
      clearTimeout(resting);
    };
  }, [worker, before, device, seenBy, monitor, choice, overlay, gpu]);
  useEffect(() => {
    let left = false;
    if (worker === undefined || before === undefined) return undefined;
    const run = async (): Promise<void> => {
      setRanked([]);
      for (const each of latest.current.ranked) {
        const sent = await sentTo(worker, { device: each, choice, seenBy: undefined, monitor });
        if (left) return;
        const one = await worker.rank(sent);
        if (left) return;
        if (typeof one !== 'string') setRanked((known) => [...known, one]);
      }
    };
    const soon = setTimeout(() => {
      run().catch((error: unknown) => {
        if (!left) setProblem(problemWords(error));
      });
    }, RANKING_WAITS_MS);
    return () => {
      left = true;
      clearTimeout(soon);
    };
  }, [worker, before, monitor, choice]);
  const pointAt = (at: { readonly x: number; readonly y: number } | undefined): void => {
    if (at === undefined || worker === undefined || busy.current) return;
    busy.current = true;
    void worker.at(at.x, at.y).then((found) => {
      busy.current = false;
      setPoint(found);
    });
  };
  return { before, opened, after, figures, ranked, point, problem, screenProblem, pointAt };
}

/** A picture's own profile is another one for each picture. */
const keyOf = (source: ProfileSource, picture: OpenedPicture): string =>
  source.key === EMBEDDED ? (picture.file?.iccKey ?? EMBEDDED) : source.key;

/** The profile that a screen is drawn by once it is known to be one of a screen; else why it is not, and the picture stays. */
function useMonitor(worker: Remote<ProofWorker> | undefined, wanted: ProfileSource | undefined) {
  const [checked, setChecked] = useState<{
    readonly of: ProfileSource;
    readonly words: string | undefined;
  }>();
  useEffect(() => {
    if (worker === undefined || wanted === undefined) return;
    void given(worker, wanted)
      .then((own) => worker.screenProblem(own))
      .catch(problemWords)
      .then((words) => setChecked({ of: wanted, words }));
  }, [worker, wanted]);
  if (checked === undefined || checked.of !== wanted) return { monitor: undefined, screenProblem: undefined };
  const { of, words } = checked;
  return { monitor: words === undefined ? of : undefined, screenProblem: words };
}

/** The profiles that a worker has, by key: they are large, and sliders ask often. */
const taken = new WeakMap<object, Map<string, Promise<void>>>();

/** Has a worker take a profile, where it has not. */
export async function given(
  worker: Remote<ProofWorker>,
  { key, label: name, bytes }: ProfileSource,
): Promise<GivenProfile> {
  const own = taken.get(worker) ?? new Map<string, Promise<void>>();
  taken.set(worker, own);
  const taking = own.get(key) ?? bytes().then((file) => worker.take({ key, name }, file));
  own.set(key, taking);
  try {
    await taking;
  } catch (error) {
    // What could not be fetched may come another time.
    own.delete(key);
    throw error;
  }
  return { key, name };
}

interface Asked {
  readonly device: ProfileSource;
  readonly choice: ProofChoice;
  readonly seenBy: ProfileSource | undefined;
  readonly monitor?: ProfileSource | undefined;
}

/** A proof as a worker is asked for it. */
export async function sentTo(
  worker: Remote<ProofWorker>,
  { device, choice, seenBy, monitor }: Asked,
): Promise<AskedProof> {
  const [printed, seen, shownBy] = await Promise.all([
    given(worker, device),
    seenBy && given(worker, seenBy),
    monitor && given(worker, monitor),
  ]);
  return { ...printed, choice, seenBy: seen, monitor: shownBy };
}

/** Opens a picture in the worker, and tells its values. */
async function openIn(
  worker: Remote<ProofWorker>,
  { file, width, height, name }: OpenedPicture,
): Promise<ProofedPicture> {
  if (file === undefined) return worker.openSample(name as SamplePicture, width, height);
  const picture = { width, height, channels: file.channels, values: file.values };
  await worker.openPicture(picture);
  return picture;
}
