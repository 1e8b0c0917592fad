import type { ReaderKind } from '@melto/core/charts/pageGeometry';
import type { HandMovement, Instrument, MeasurementMode } from '@melto/core/device/instrument';
import { spectraRows } from '@melto/core/spectral/spectraRows';
import { SIMULATED_INSTRUMENTS } from '@melto/simulator/instruments/simulatedInstruments';
import { decodeUnder } from '@melto/simulator/instruments/underInstrument';
import { domainNow } from '../kernel/clock.ts';
import type { Context } from '../kernel/context.ts';
import { deskData } from '../reading/deskData.ts';
import { knowInstrument, tileRead } from '../reading/instruments.ts';
import type { InstrumentRow } from '../reading/instruments.ts';
import { storePassOf } from '../reading/storePass.ts';
import type { PassAnswer, PassInput } from '../reading/storePass.ts';
import { underOf } from '../reading/underInstrument.ts';

export interface SimulatedPass extends Pick<PassInput, 'attempt' | 'strip' | 'averageWith' | 'more'> {
  readonly mode: MeasurementMode;
  readonly hand?: HandMovement;
}

export type SimulatedAnswer =
  | PassAnswer
  | { readonly ok: false; readonly reason: string; readonly words: string };

/** Reads a strip with a simulated instrument in this process, as the sample house and the tests do without a desk. */
export async function readStrip(
  context: Context,
  code: string,
  { hand, ...input }: SimulatedPass,
): Promise<SimulatedAnswer> {
  const data = await deskData(context, code);
  const reader = readerOf(data.chart.reader);
  const known = await knownAs(context, reader);
  const under = await underOf(context, data, known, input);
  const outcome = reader.readStrip({
    ...decodeUnder(under),
    mode: input.mode,
    attempt: input.attempt,
    timeMs: await domainNow(context),
    hand,
  });
  if (!outcome.ok) return { ok: false, reason: outcome.failure, words: outcome.failure };
  const { startNm, stepNm, count } = outcome.grid;
  const spectra = spectraRows(outcome.spectra, count);
  return storePassOf(context, data, { ...input, instrument: known.id, startNm, stepNm, spectra });
}

/** Reads the white tile of the simulated instrument that a sheet is read with, or of the hand-held one. */
export async function calibrateTile(context: Context, code?: string): Promise<{ readonly tileMs: number }> {
  const kind = code === undefined ? 'strip' : (await deskData(context, code)).chart.reader;
  return tileRead(context, (await knownAs(context, readerOf(kind))).id);
}

/** The simulated instrument of the kind that a chart was laid out for. */
function readerOf(kind: ReaderKind): Instrument {
  return SIMULATED_INSTRUMENTS.find((instrument) => instrument.kind === kind) ?? SIMULATED_INSTRUMENTS[0];
}

/** A simulated instrument as the house knows it. */
function knownAs(
  context: Context,
  { id, name, kind, modes, tileLifeMs }: Instrument,
): Promise<InstrumentRow> {
  return knowInstrument(context, {
    ...{ serial: id, name, kind, modes, tileLifeMs, simulated: true },
    ...{ apertureMm: null, filter: '', backing: '' },
  });
}
