import type { HandMovement, MeasurementMode } from '@melto/core/device/instrument';
import { SIMULATED_INSTRUMENTS } from '@melto/simulator/instruments/simulatedInstruments';
import { decodeUnder } from '@melto/simulator/instruments/underInstrument';
import { domainNow } from '../kernel/clock.ts';
import type { Context } from '../kernel/context.ts';
import { deskData } from '../reading/deskData.ts';
import { knowInstrument, tileRead } from '../reading/instruments.ts';
import type { InstrumentRow } from '../reading/instruments.ts';
import { storePass } from '../reading/storePass.ts';
import type { PassAnswer, PassInput } from '../reading/storePass.ts';
import { underInstrument } from '../reading/underInstrument.ts';

export interface SimulatedPass extends Pick<PassInput, 'attempt' | 'strip' | 'averageWith' | 'more'> {
  readonly mode: MeasurementMode;
  readonly hand?: HandMovement;
}

export type SimulatedAnswer =
  PassAnswer | { readonly ok: false; readonly reason: string; readonly words: string };

/** Reads a strip with a simulated instrument in this process, as the sample house and the tests do without a desk. */
export async function readStrip(
  context: Context,
  code: string,
  { hand, ...input }: SimulatedPass,
): Promise<SimulatedAnswer> {
  const known = await instrumentFor(context, code);
  const reader = SIMULATED_INSTRUMENTS.find(({ id }) => id === known.serial);
  if (reader === undefined) throw new Error(`no simulated instrument ${known.serial}`);
  const { under } = await underInstrument(context, code, { strip: input.strip, instrument: known.id });
  const outcome = reader.readStrip({
    ...decodeUnder(under),
    mode: input.mode,
    attempt: input.attempt,
    timeMs: await domainNow(context),
    hand,
  });
  if (!outcome.ok) return { ok: false, reason: outcome.failure, words: outcome.failure };
  const { startNm, stepNm, count } = outcome.grid;
  const spectra = Array.from({ length: outcome.spectra.length / count }, (_, patch) =>
    Array.from(outcome.spectra.subarray(patch * count, (patch + 1) * count)),
  );
  return storePass(context, code, { ...input, instrument: known.id, startNm, stepNm, spectra });
}

/** Reads the white tile of the simulated instrument that a sheet is read with, or of the hand-held one. */
export async function calibrateTile(context: Context, code?: string): Promise<{ readonly tileMs: number }> {
  return tileRead(context, (await instrumentFor(context, code)).id);
}

/** The simulated instrument of the kind that a chart was laid out for, known to the house. */
async function instrumentFor(context: Context, code?: string): Promise<InstrumentRow> {
  const kind = code === undefined ? 'strip' : (await deskData(context, code)).chart.reader;
  const { id, name, modes, tileLifeMs, ...reader } =
    SIMULATED_INSTRUMENTS.find((instrument) => instrument.kind === kind) ?? SIMULATED_INSTRUMENTS[0];
  return knowInstrument(context, {
    ...{ serial: id, name, kind: reader.kind, modes, tileLifeMs, simulated: true },
    ...{ apertureMm: null, filter: '', backing: '' },
  });
}
