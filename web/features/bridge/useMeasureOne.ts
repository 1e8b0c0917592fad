'use client';

import type { Measured } from '@melto/bridge/protocol';
import type { MeasurementMode } from '@melto/core/device/instrument';
import { coversColours } from '@melto/core/spectral/coversColours';
import { UNDER_INSTRUMENT } from '@/endpoints/reading';
import { useHouse } from '@/features/frame/useHouse';
import { ApiProblem, ask, newKey } from '@/ui/api';
import { useBridge } from './BridgeContext';
import type { Connected } from './BridgeContext';
import { passWords } from './passWords';

/** One patch as an instrument measured it. */
export type MeasuredOne = Pick<Measured, 'startNm' | 'stepNm'> & {
  readonly attempt: string;
  readonly instrument: number;
  readonly spectrum: readonly number[];
};

/**
 * Has one patch measured; rejects in words. A simulated instrument lies on the patch of a printed sheet that `place`
 * names.
 */
export function useMeasureOne(): (
  instrument: Connected,
  mode: MeasurementMode,
  place: { readonly code: string; readonly strip: number; readonly patch: number } | undefined,
) => Promise<MeasuredOne> {
  const { client } = useBridge();
  const { data: house } = useHouse();
  return async ({ info, id, name }, mode, place) => {
    if (client === undefined) throw new ApiProblem(0, 'No instrument is connected.', 'Connect one first.');
    if (id === undefined)
      throw new ApiProblem(0, `${name} is being made known to the house.`, 'Try again in a moment.');
    const under =
      info.simulated === true && place !== undefined
        ? await ask(UNDER_INSTRUMENT, {
            params: { code: place.code },
            query: { strip: place.strip, patch: place.patch, instrument: id },
          })
        : {};
    const request = { id: newKey(), instrument: info.serial, mode, patches: 1, ...under };
    const outcome = await client.read({ ...request, at: Date.now() + (house?.offsetMs ?? 0) });
    if (!outcome.ok) throw new ApiProblem(0, passWords(outcome, name, 1), '');
    client.kept(request.id);
    const { startNm, stepNm, spectra } = outcome.measured;
    const [spectrum] = spectra;
    if (!coversColours({ startNm, stepNm, count: spectrum.length }))
      throw new ApiProblem(
        0,
        `${name} gave too little of the spectrum for a colour: from ${startNm} nm in steps of ${stepNm} nm.`,
        '',
      );
    return { startNm, stepNm, spectrum, attempt: request.id, instrument: id };
  };
}
