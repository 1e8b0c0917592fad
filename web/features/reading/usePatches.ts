'use client';

import { useState } from 'react';
import type { MeasurementMode } from '@melto/core/device/instrument';
import { MODES } from '@melto/core/measured/columns';
import { typedColour } from '@melto/core/measured/typedColour';
import { issueText } from '@melto/core/result';
import type { Static } from '@sinclair/typebox';
import type { DeskState } from '@melto/services/reading/desk';
import { PATCH } from '@/endpoints/reading';
import { useBridge } from '@/features/bridge/BridgeContext';
import { useMeasureOne } from '@/features/bridge/useMeasureOne';
import { newKey, send } from '@/ui/api';
import { useSending } from '@/ui/useSending';
import { missingPlaces, nextMissing } from './missingPlaces';
import type { PatchPlace } from './missingPlaces';
import { readableBy } from './readableBy';

type Body = Static<typeof PATCH.body>;

interface Stored {
  readonly place: PatchPlace;
  readonly measured: string;
  readonly off: number;
}

/** Which patch of a sheet is measured next, and how it is kept: what was measured is held until it is stored. */
export function usePatches(state: DeskState, onStored: () => Promise<unknown>) {
  const { instruments, chosen, choose: rememberChoice } = useBridge();
  const readable = readableBy(state, instruments);
  // What another instrument measures goes into a reading of its own: the one that has begun the sheet comes first.
  const [here, setHere] = useState('');
  const of = (serial: string | undefined) => readable.find(({ info }) => info.serial === serial);
  const instrument =
    of(here) ??
    of(state.readBy?.serial) ??
    of(chosen) ??
    readable.find(({ info }) => info.kind === 'spot') ??
    readable[0];
  const choose = (serial: string): void => {
    rememberChoice(serial);
    setHere(serial);
  };
  const [wanted, setMode] = useState(state.mode as MeasurementMode);
  const [place, setPlace] = useState<PatchPlace>(
    () => nextMissing(state, undefined) ?? { strip: 1, patch: 1 },
  );
  const [text, setText] = useState('');
  const [last, setLast] = useState<Stored>();
  /** What was measured and is not stored: it looks like another patch, or the server did not take it. */
  const [held, setHeld] = useState<{ readonly body: Body; readonly words?: string }>();
  const { sending, problem, setProblem, run } = useSending();
  const measureOne = useMeasureOne();
  const modes = instrument?.info.modes ?? MODES;
  const mode = modes.includes(wanted) ? wanted : modes[0];
  const missing = missingPlaces(state).length;
  const row = state.strips[place.strip - 1];

  const keep = async (body: Body): Promise<void> => {
    setHeld({ body });
    const answer = await send(
      PATCH,
      { params: { code: state.code }, body },
      body.attempt + (body.sure === true ? ' sure' : ''),
    );
    if (!answer.ok) return setHeld({ body, words: answer.words });
    setHeld(undefined);
    setText('');
    const own = { strip: body.strip, patch: body.patch };
    setLast({ place: own, measured: answer.measured, off: answer.off });
    await onStored();
    setPlace(nextMissing(state, own) ?? own);
  };
  const measure = (): Promise<void> =>
    run(async () => {
      if (instrument === undefined) return;
      const { code } = state;
      const { attempt, ...measured } = await measureOne(instrument, mode, { code, ...place });
      await keep({ ...place, attempt, mode, measured: { ...measured, spectrum: [...measured.spectrum] } });
    });
  const type = (): Promise<void> =>
    run(async () => {
      const typed = typedColour(text);
      if (!typed.ok) return setProblem(typed.issues.map(issueText).join('; '));
      await keep({ ...place, attempt: newKey(), mode, lab: typed.value.lab });
    });
  const go = (next: PatchPlace): void => {
    setPlace(next);
    setHeld(undefined);
    setProblem(undefined);
  };
  return {
    ...{ instrument, readable, choose, mode, modes, setMode, place, go, row, missing },
    ...{ text, setText, last, held, sending, problem, measure, type },
    /** Sends what is held again; `sure` where the person keeps what looks like another patch. */
    again: (sure: boolean) =>
      run(async () => {
        if (held !== undefined) await keep(sure ? { ...held.body, sure } : held.body);
      }),
  };
}
