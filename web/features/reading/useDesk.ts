'use client';

import { CALIBRATE_TILE, DESK, MARK_STRIP, PASS } from '@/endpoints/reading';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import type { HandMovement, MeasurementMode } from '@melto/core/device/instrument';
import type { DeskState } from '@melto/services/reading/desk';
import type { JudgedPass } from '@/endpoints/reading';
import { ApiProblem, ask, newKey, problemWords, send } from '@/ui/api';

/** What the last pass led to. */
export type LastPass =
  | {
      readonly kind: 'read';
      readonly strip: number;
      readonly measured: readonly string[];
      readonly expected: readonly string[];
      readonly reversed: boolean;
      readonly spread: number | null;
      /** Passes of this strip so far, and how many were asked for. */
      readonly pass: number;
      readonly passes: number;
    }
  | { readonly kind: 'failed'; readonly strip: number; readonly words: string; readonly reason: string };

/** A strip is sent again for so long where the server does not answer. */
const KEEP_TRYING_MS = 40_000;

/** The state of a reading desk and what can be done at it. */
export function useDesk(initial: DeskState) {
  const { code } = initial;
  const queries = useQueryClient();
  const { data } = useQuery({
    queryKey: ['desk', initial.code],
    queryFn: () => ask(DESK, { params: { code } }),
    initialData: initial,
    refetchInterval: 5000,
  });
  const [strip, showStrip] = useState(() => nextUnread(initial, 0));
  // A key may come before the page has been drawn with the next strip: passes go by this, not by what was drawn.
  const at = useRef(strip);
  const setStrip = (next: number): void => {
    at.current = next;
    showStrip(next);
  };
  const [last, setLast] = useState<LastPass>();
  const [busy, setBusy] = useState(false);
  // What a poll brings during a pass is shown after it: whoever sees a strip counted can start the next one.
  const [kept, setKept] = useState(initial);
  const state = busy ? kept : data;
  const [mode, setMode] = useState<MeasurementMode>(initial.mode as MeasurementMode);
  const [hand, setHand] = useState<HandMovement>('steady');
  const [passes, setPasses] = useState(1);
  const [own, setOwn] = useState<ReadonlySet<number>>(new Set());
  const done = useRef<{ strip: number; attempts: string[] }>({ strip: 0, attempts: [] });
  const [times, setTimes] = useState<readonly number[]>([]);
  const running = useRef(false);
  const [ahead, setAhead] = useState(false);

  const refresh = (): Promise<void> => queries.invalidateQueries({ queryKey: ['desk', initial.code] });

  /** A retried request carries the same attempt, so it is the same pass and is stored once. */
  const sendPass = async (attempt: string, strip: number, before: readonly string[]): Promise<JudgedPass> => {
    const from = Date.now();
    for (let tries = 1; ; tries++) {
      try {
        return await send(
          PASS,
          {
            params: { code },
            body: { attempt, strip, mode, hand, averageWith: before, more: before.length + 1 < passes },
          },
          attempt,
        );
      } catch (error) {
        const unanswered = error instanceof ApiProblem && error.status === 0;
        if (!unanswered || Date.now() - from > KEEP_TRYING_MS) throw error;
        const words = `The server does not answer. Strip ${strip} is kept here and sent again.`;
        setLast({ kind: 'failed', strip, words, reason: 'server' });
        await new Promise((resolve) => setTimeout(resolve, Math.min(2000, 500 * tries)));
      }
    }
  };

  const pass = async (): Promise<void> => {
    if (running.current) return;
    running.current = true;
    setKept(state);
    const strip = at.current;
    setBusy(true);
    let fresh: DeskState | undefined;
    try {
      const attempt = newKey();
      const before = done.current.strip === strip ? done.current.attempts : [];
      const answer = await sendPass(attempt, strip, before);
      setHand('steady');
      if (answer.ok) {
        setLast({
          kind: 'read',
          strip: answer.strip,
          measured: answer.measured,
          expected: answer.expected,
          reversed: answer.reversed,
          spread: answer.spread,
          pass: before.length + 1,
          passes,
        });
        const enough = before.length + 1 >= passes;
        done.current = enough ? { strip: 0, attempts: [] } : { strip, attempts: [...before, attempt] };
        setOwn((strips) => new Set(strips).add(strip));
        setTimes((before) => [...before.slice(-7), Date.now()]);
        chime(880, 0.07);
        fresh = await ask(DESK, { params: { code } });
        const next = nextUnread(fresh, answer.strip);
        if (enough) setStrip(next);
        // A reader that moves the page by itself goes on to the next row.
        setAhead(
          enough &&
            fresh.instrument?.kind === 'sheet' &&
            fresh.strips.some((row) => row.strip === next && row.measured === null),
        );
        void queries.invalidateQueries({ queryKey: ['house'] });
      } else {
        setLast({ kind: 'failed', strip, words: answer.words, reason: answer.reason });
        chime(220, 0.22);
      }
    } catch (error) {
      setLast({ kind: 'failed', strip, words: problemWords(error), reason: 'server' });
      chime(220, 0.22);
    } finally {
      running.current = false;
      setBusy(false);
      if (fresh !== undefined) queries.setQueryData(['desk', initial.code], fresh);
    }
  };

  useEffect(() => {
    if (!ahead || busy) return;
    setAhead(false);
    void pass();
    // eslint-disable-next-line react-hooks/exhaustive-deps -- a pass begins where the desk says so, as it stands then
  }, [ahead, busy]);

  const act = async (work: Promise<unknown>): Promise<void> => {
    try {
      await work;
      setLast(undefined);
      await refresh();
      void queries.invalidateQueries({ queryKey: ['house'] });
    } catch (error) {
      setLast({ kind: 'failed', strip, words: problemWords(error), reason: 'server' });
    }
  };

  return {
    state,
    strip,
    last,
    busy,
    mode,
    hand,
    times,
    passes,
    setPasses,
    /** Strips that were read here since the desk was opened. */
    own,
    setStrip: (next: number) => setStrip(Math.max(1, Math.min(state.strips.length, next))),
    setMode,
    setHand,
    pass,
    calibrate: () => act(send(CALIBRATE_TILE, { query: { sheet: code } })),
    mark: () =>
      act(send(MARK_STRIP, { params: { code }, body: { strip, marked: !state.marked.includes(strip) } })),
    /** What a file became is shown as if it had been read here. */
    refresh: () => act(Promise.resolve()),
  };
}

/** The next strip that is not read, after `after`; the same place where all are. */
function nextUnread(state: DeskState, after: number): number {
  const open = state.strips.filter(({ measured }) => measured === null).map(({ strip }) => strip);
  return open.find((strip) => strip > after) ?? open[0] ?? Math.max(1, after);
}

/** A short tone: high for a good pass, low for a bad one. */
function chime(hertz: number, seconds: number): void {
  try {
    const audio = new AudioContext();
    const tone = audio.createOscillator();
    const gain = audio.createGain();
    gain.gain.value = 0.06;
    tone.frequency.value = hertz;
    tone.connect(gain).connect(audio.destination);
    tone.start();
    tone.stop(audio.currentTime + seconds);
    tone.onended = () => void audio.close();
  } catch {
    // A browser without sound shows the same in words.
  }
}
