'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import type { NoPass } from '@melto/bridge/bridgeClient';
import type { MeasurementMode } from '@melto/core/device/instrument';
import type { JudgedPass } from '@/endpoints/reading';
import { PASS, UNDER_INSTRUMENT } from '@/endpoints/reading';
import { useBridge } from '@/features/bridge/BridgeContext';
import type { Connected } from '@/features/bridge/BridgeContext';
import { passWords } from '@/features/bridge/passWords';
import { ApiProblem, ask, newKey, problemWords, send } from '@/ui/api';
import { keepPass, keptPass } from './keptPass';
import type { KeptPass } from './keptPass';

/** Where a pass stands; `armed` waits for the person's movement. */
export type PassPhase = 'idle' | 'reading' | 'armed' | 'sending';

export interface PassWanted {
  readonly code: string;
  readonly page: number;
  readonly strip: number;
  readonly patches: number;
  readonly mode: MeasurementMode;
  readonly instrument: Connected & { readonly id: number };
  readonly movement: string | undefined;
  readonly averageWith: readonly string[];
  readonly more: boolean;
  /** The house's time. */
  readonly at: number;
}

export type PassCame =
  | { readonly ok: true; readonly attempt: string; readonly answer: Extract<JudgedPass, { ok: true }> }
  | { readonly ok: false; readonly reason: string; readonly words: string };

/** What is asked of the server is asked again for so long where it does not answer. */
const KEEP_TRYING_MS = 40_000;

/**
 * One pass at a time: the instrument measures it, the server stores it. What was measured is kept in this tab until it
 * is stored, under the attempt it was asked for, so that neither a page, a bridge nor a server that dies loses it.
 */
export function usePass(onTrouble: (words: string) => void) {
  const { client } = useBridge();
  // A pass may begin before the bridge is there: it goes by the one that is there when it is needed.
  const bridge = useRef(client);
  useEffect(() => {
    bridge.current = client;
  });
  const [phase, setPhase] = useState<PassPhase>('idle');
  const [done, setDone] = useState(0);
  const running = useRef<string | undefined>(undefined);
  const trouble = useRef(onTrouble);
  useEffect(() => {
    trouble.current = onTrouble;
  });

  /** Asks the server until it answers; `words` tell what is waited for. */
  const untilAnswered = useCallback(async <T>(work: () => Promise<T>, words: string): Promise<T> => {
    const from = Date.now();
    for (let tries = 1; ; tries++) {
      try {
        return await work();
      } catch (error) {
        const unanswered = error instanceof ApiProblem && error.status === 0;
        if (!unanswered || Date.now() - from > KEEP_TRYING_MS) throw error;
        trouble.current(`The server does not answer. ${words}`);
        await new Promise((resolve) => setTimeout(resolve, Math.min(2000, 500 * tries)));
      }
    }
  }, []);

  const store = useCallback(
    async (pass: KeptPass & { readonly measured: NonNullable<KeptPass['measured']> }): Promise<PassCame> => {
      setPhase('sending');
      const { code, strip, instrument, request, averageWith, more, measured } = pass;
      const body = {
        ...{ attempt: request.id, strip, mode: request.mode, instrument, averageWith, more },
        ...{ startNm: measured.startNm, stepNm: measured.stepNm, spectra: measured.spectra.map(shortened) },
      };
      const words = `Strip ${strip} is kept here and sent again.`;
      try {
        const answer = await untilAnswered(() => send(PASS, { params: { code }, body }, request.id), words);
        keepPass(code, undefined);
        bridge.current?.kept(request.id);
        return answer.ok
          ? { ok: true, attempt: request.id, answer }
          : { ok: false, reason: answer.reason, words: answer.words };
      } catch (error) {
        // What the server refuses is not sent again; what it did not answer is.
        if (error instanceof ApiProblem && error.status >= 400 && error.status < 500) {
          keepPass(code, undefined);
          bridge.current?.kept(request.id);
        }
        return { ok: false, reason: 'server', words: problemWords(error) };
      }
    },
    [untilAnswered],
  );

  const measure = useCallback(
    async (pass: KeptPass, name: string): Promise<PassCame> => {
      const { current: client } = bridge;
      if (client === undefined)
        return { ok: false, reason: 'no-instrument', words: 'No instrument is connected.' };
      setPhase('reading');
      setDone(0);
      keepPass(pass.code, pass);
      const outcome = await client.read(pass.request, {
        onArmed: () => setPhase('armed'),
        onProgress: setDone,
      });
      if (!outcome.ok) {
        keepPass(pass.code, undefined);
        return failed(outcome, name, pass.request.patches);
      }
      const { startNm, stepNm, spectra } = outcome.measured;
      const whole = { ...pass, measured: { startNm, stepNm, spectra } };
      keepPass(pass.code, whole);
      return store(whole);
    },
    [store],
  );

  const alone = useCallback(
    async (id: string, work: () => Promise<PassCame>): Promise<PassCame | undefined> => {
      if (running.current !== undefined) return undefined;
      running.current = id;
      try {
        return await work();
      } catch (error) {
        return { ok: false, reason: 'server', words: problemWords(error) };
      } finally {
        running.current = undefined;
        setPhase('idle');
      }
    },
    [],
  );

  /** Has a strip read and stored; undefined where a pass is under way. */
  const pass = useCallback(
    (wanted: PassWanted): Promise<PassCame | undefined> => {
      const { code, page, strip, patches, mode, instrument, movement, averageWith, more, at } = wanted;
      const attempt = newKey();
      return alone(attempt, async () => {
        setPhase('reading');
        const { info, id } = instrument;
        const under =
          info.simulated === true
            ? await untilAnswered(
                () => ask(UNDER_INSTRUMENT, { params: { code }, query: { strip, instrument: id } }),
                `Strip ${strip} is read when it does.`,
              )
            : undefined;
        const request = {
          ...{ id: attempt, instrument: info.serial, mode, patches, at, page, strip },
          ...(under ?? {}),
          ...(movement === undefined ? {} : { movement }),
        };
        return measure({ code, strip, instrument: id, request, averageWith, more }, instrument.name);
      });
    },
    [alone, measure, untilAnswered],
  );

  /** Goes on with what this tab has not stored of a sheet; undefined where there is nothing. */
  const resume = useCallback(
    async (code: string): Promise<(PassCame & { readonly strip: number }) | undefined> => {
      const left = keptPass(code);
      if (left === undefined) return undefined;
      const { measured } = left;
      const came = await alone(left.request.id, () =>
        measured === undefined ? measure(left, 'The instrument') : store({ ...left, measured }),
      );
      return came === undefined ? undefined : { ...came, strip: left.strip };
    },
    [alone, measure, store],
  );

  /** Ends a pass that waits for the person's movement. */
  const cancel = useCallback(() => {
    if (running.current !== undefined) bridge.current?.cancel(running.current);
  }, []);

  return { phase, done, pass, resume, cancel };
}

function failed(outcome: NoPass, name: string, patches: number): PassCame {
  return { ok: false, reason: outcome.reason, words: passWords(outcome, name, patches) };
}

/** Nine digits hold what is stored of a reflectance. */
const shortened = (row: readonly number[]): number[] => row.map((value) => Number(value.toPrecision(9)));
