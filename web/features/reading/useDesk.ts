'use client';

import { DESK, MARK_STRIP } from '@/endpoints/reading';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import type { RefObject } from 'react';
import type { MeasurementMode } from '@melto/core/device/instrument';
import type { DeskState } from '@melto/services/reading/desk';
import { useBridge } from '@/features/bridge/BridgeContext';
import type { Connected } from '@/features/bridge/BridgeContext';
import { HAND_REASONS } from '@/features/bridge/passWords';
import { ApiProblem, ask, problemWords, send } from '@/ui/api';
import { chime } from './chime';
import { keptPass } from './keptPass';
import { readableBy } from './readableBy';
import { usePass } from './usePass';
import type { PassCame } from './usePass';

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

/** A pass waits so long for its instrument, and for one that was here and whose bridge starts again. */
const LONGEST_WAIT_MS = 3000;
const LONGEST_ABSENCE_MS = 30_000;

/** The state of a reading desk and what can be done at it. */
export function useDesk(initial: DeskState) {
  const { code } = initial;
  const queries = useQueryClient();
  const bridge = useBridge();
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
  const passing = usePass((words) => setLast({ kind: 'failed', strip: at.current, words, reason: 'server' }));
  const [busy, setBusy] = useState(false);
  // What a poll brings during a pass is shown after it: whoever sees a strip counted can start the next one.
  const [kept, setKept] = useState(initial);
  const state = busy && passing.phase !== 'armed' ? kept : data;
  const readable = readableBy(state, bridge.instruments);
  const [here, setHere] = useState('');
  const instrument = chosenOf(state, readable, here, bridge.chosen);
  const [wanted, setMode] = useState<MeasurementMode>(initial.mode as MeasurementMode);
  const mode = modeFor(state, instrument, wanted);
  // A key may come before the bridge has answered, and before the house has met the instrument.
  const now = useRef(instrument);
  const met = useRef(false);
  useEffect(() => {
    now.current = instrument;
    met.current ||= instrument !== undefined;
  });
  const waitMs = (): number => (met.current ? LONGEST_ABSENCE_MS : LONGEST_WAIT_MS);
  const [movement, setMovement] = useState('steady');
  const [passes, setPasses] = useState(1);
  const [own, setOwn] = useState<ReadonlySet<number>>(new Set());
  const done = useRef<{ strip: number; attempts: string[] }>({ strip: 0, attempts: [] });
  const [times, setTimes] = useState<readonly number[]>([]);
  const running = useRef(false);
  const [ahead, setAhead] = useState<'next' | 'again'>();

  const refresh = (): Promise<void> => queries.invalidateQueries({ queryKey: ['desk', initial.code] });

  /** Shows what came of a pass of `strip`, and goes on to the next. */
  const take = async (came: PassCame, strip: number, before: readonly string[]): Promise<void> => {
    if (!came.ok) {
      if (came.reason !== 'cancelled') {
        setLast({ kind: 'failed', strip, words: came.words, reason: came.reason });
        chime(220, 0.22);
      }
      // Another strip was chosen while the instrument waited: it is made ready for that.
      const moved = came.reason === 'cancelled' && at.current !== strip;
      if (moved || HAND_REASONS.has(came.reason)) setAhead('again');
      return;
    }
    const { answer, attempt } = came;
    const { measured, expected, reversed, spread } = answer;
    const pass = before.length + 1;
    setLast({ kind: 'read', strip, measured, expected, reversed, spread, pass, passes });
    const enough = pass >= passes;
    done.current = enough ? { strip: 0, attempts: [] } : { strip, attempts: [...before, attempt] };
    setOwn((strips) => new Set(strips).add(strip));
    setTimes((before) => [...before.slice(-7), Date.now()]);
    chime(880, 0.07);
    const fresh = await ask(DESK, { params: { code } });
    const next = nextUnread(fresh, strip);
    if (enough) setStrip(next);
    if (!enough || fresh.strips.some((row) => row.strip === next && row.measured === null)) setAhead('next');
    void queries.invalidateQueries({ queryKey: ['house'] });
    queries.setQueryData(['desk', initial.code], fresh);
  };

  const alone = async (work: (strip: number) => Promise<void>): Promise<void> => {
    if (running.current) return;
    running.current = true;
    setKept(state);
    setBusy(true);
    const strip = at.current;
    try {
      await work(strip);
    } catch (error) {
      setLast({ kind: 'failed', strip, words: problemWords(error), reason: 'server' });
      chime(220, 0.22);
    } finally {
      running.current = false;
      setBusy(false);
    }
  };

  const resume = (): Promise<void> =>
    alone(async () => {
      const came = await passing.resume(code);
      if (came !== undefined) await take(came, came.strip, []);
    });

  const pass = async (): Promise<void> => {
    // What was measured and not stored comes before anything new.
    if (keptPass(code)?.measured !== undefined) return resume();
    await alone(async (strip) => {
      const patches = state.strips[strip - 1].expected.length;
      const ready = await instrumentReady(now, waitMs());
      if (ready === undefined) {
        const words = noInstrumentWords(state, bridge.instruments);
        setLast({ kind: 'failed', strip, words, reason: 'none' });
        return;
      }
      const before = done.current.strip === strip ? done.current.attempts : [];
      const came = await passing.pass({
        ...{ code, page: state.page, strip, patches, instrument: ready, mode: modeFor(state, ready, wanted) },
        movement: ready.info.movements?.includes(movement) === true ? movement : undefined,
        averageWith: before,
        more: before.length + 1 < passes,
        at: Date.now() + state.offsetMs,
      });
      if (came === undefined) return;
      if (came.ok || came.reason !== 'server') setMovement('steady');
      await take(came, strip, before);
    });
  };

  // What this tab was about when it was loaded again.
  const { client } = bridge;
  const resumed = useRef(false);
  useEffect(() => {
    if (client === undefined || resumed.current || keptPass(code) === undefined) return;
    resumed.current = true;
    void resume();
    // oxlint-disable-next-line react/exhaustive-deps -- once, when there is a bridge to ask
  }, [client, code]);

  // A reader that moves the page by itself, and one that waits for the hand, go on without a key.
  const waits = instrument?.info.begins === 'at-instrument';
  const unasked = waits || instrument?.info.kind === 'sheet';
  const there = instrument !== undefined;
  useEffect(() => {
    // An instrument whose bridge has just died goes on when it is back.
    if (ahead === undefined || busy || !there) return;
    setAhead(undefined);
    if (ahead === 'next' ? unasked : waits) void pass();
    // oxlint-disable-next-line react/exhaustive-deps -- a pass begins where the desk says so, as it stands then
  }, [ahead, busy, there]);

  const { cancel } = passing;
  useEffect(() => cancel, [cancel]);

  const act = async (work: () => Promise<unknown>): Promise<void> => {
    try {
      await work();
      setLast(undefined);
      await refresh();
      void queries.invalidateQueries({ queryKey: ['house'] });
    } catch (error) {
      setLast({ kind: 'failed', strip: at.current, words: problemWords(error), reason: 'server' });
    }
  };

  const choose = (serial: string): void => {
    bridge.choose(serial);
    setHere(serial);
    if (passing.phase === 'armed') cancel();
  };

  return {
    state,
    strip,
    // Of an instrument that has come since nothing is said any more.
    last: last?.kind === 'failed' && last.reason === 'none' && instrument !== undefined ? undefined : last,
    busy,
    phase: passing.phase,
    patchesDone: passing.done,
    mode,
    /** The reading that the sheet has goes on, in its own mode. */
    modeKept: goesOn(state, instrument),
    movement,
    times,
    passes,
    setPasses,
    /** Strips that were read here since the desk was opened. */
    own,
    /** Instruments that can read this sheet, and the one that does; undefined where there is none. */
    readable,
    instrument,
    setStrip: (next: number) => {
      setStrip(Math.max(1, Math.min(state.strips.length, next)));
      if (passing.phase === 'armed') cancel();
    },
    setMode,
    setMovement,
    choose,
    pass,
    calibrate: () =>
      act(async () => {
        const ready = await instrumentReady(now, waitMs());
        if (ready === undefined) throw new ApiProblem(0, noInstrumentWords(state, bridge.instruments), '');
        await bridge.calibrate(ready);
      }),
    mark: () =>
      act(() =>
        send(MARK_STRIP, { params: { code }, body: { strip, marked: !state.marked.includes(strip) } }),
      ),
    /** What a file became is shown as if it had been read here. */
    refresh: () =>
      act(async () => {
        const fresh = await ask(DESK, { params: { code } });
        setOwn(new Set(fresh.strips.filter(({ measured }) => measured !== null).map((row) => row.strip)));
      }),
  };
}

/**
 * The instrument that was chosen at this desk, else the one that has begun the sheet, else the one chosen last where it
 * is of the kind that the chart was laid out for, else one of that kind, else the first.
 */
function chosenOf(
  { reader, readBy }: Pick<DeskState, 'reader' | 'readBy'>,
  readable: readonly Connected[],
  here: string,
  chosen: string,
): Connected | undefined {
  const fits = ({ info }: Connected): boolean => info.kind === reader;
  const of = (serial: string | undefined): Connected | undefined =>
    readable.find(({ info }) => info.serial === serial);
  return (
    of(here) ??
    of(readBy?.serial) ??
    readable.find((one) => one.info.serial === chosen && fits(one)) ??
    readable.find(fits) ??
    of(chosen) ??
    readable[0]
  );
}

/** Whether what is read goes into the reading that the sheet has: its mode is kept. */
function goesOn(
  { readingId, readBy }: Pick<DeskState, 'readingId' | 'readBy'>,
  instrument: Connected | undefined,
): boolean {
  const other = readBy !== null && instrument !== undefined && instrument.info.serial !== readBy.serial;
  return readingId !== null && !other;
}

/** The mode that was chosen, where the instrument has it; a reading that was begun keeps its own. */
function modeFor(
  state: Pick<DeskState, 'readingId' | 'readBy' | 'mode'>,
  instrument: Connected | undefined,
  wanted: MeasurementMode,
): MeasurementMode {
  if (goesOn(state, instrument)) return state.mode as MeasurementMode;
  const modes = instrument?.info.modes ?? [];
  return modes.length === 0 || modes.includes(wanted) ? wanted : modes.includes('M1') ? 'M1' : modes[0];
}

/** The instrument once it is connected and known to the house; undefined where it is not within so long. */
async function instrumentReady(
  now: RefObject<Connected | undefined>,
  waitMs: number,
): Promise<(Connected & { readonly id: number }) | undefined> {
  for (const until = Date.now() + waitMs; ;) {
    const { current } = now;
    if (current?.id !== undefined) return { ...current, id: current.id };
    if (Date.now() >= until) return undefined;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
}

function noInstrumentWords({ simulated }: DeskState, connected: readonly Connected[]): string {
  return connected.length > 0 && !simulated
    ? 'The instruments that are connected are simulated, and this sheet is real.'
    : 'No instrument is connected. Connect one, or take the reading from a file.';
}

/** The next strip that is not read, after `after`; the same place where all are. */
function nextUnread(state: DeskState, after: number): number {
  const open = state.strips.filter(({ measured }) => measured === null).map(({ strip }) => strip);
  return open.find((strip) => strip > after) ?? open[0] ?? Math.max(1, after);
}
