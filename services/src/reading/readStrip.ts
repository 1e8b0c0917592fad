import { channelCount } from '@melto/core/device/process';
import { gatherRows } from '@melto/core/numerics/gatherRows';
import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { mean } from '@melto/core/numerics/statistics';
import type { HandMovement, MeasurementMode } from '@melto/core/device/instrument';
import { matchStrip } from '@melto/core/faults/matchStrip';
import { listPasses } from '@melto/store/readings';
import type { StripRow } from '@melto/store/readings';
import { domainNow } from '../kernel/clock.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { deskData, hexRow, requireInstrument, stripLab } from './deskData.ts';
import { expectedLab } from './expected.ts';
import { storeStrips } from './storeStrips.ts';

export interface PassInput {
  /** Made by the client, so that a retried request is the same pass. */
  readonly attempt: string;
  readonly strip: number;
  readonly mode: MeasurementMode;
  readonly hand?: HandMovement;
  /** Attempts of this strip that this pass is averaged with. */
  readonly averageWith?: readonly string[];
  /** Another pass of the same strip follows: nothing is judged yet. */
  readonly more?: boolean;
}

export type PassAnswer =
  | {
      readonly ok: true;
      readonly strip: number;
      readonly measured: readonly string[];
      readonly expected: readonly string[];
      readonly reversed: boolean;
      readonly complete: boolean;
      readonly readingId: number;
      /** Mean ΔE00 of the averaged passes to their mean, where there are several. */
      readonly spread: number | null;
    }
  | { readonly ok: false; readonly reason: string; readonly words: string; readonly looksLike?: number };

const FAILURE_WORDS: Readonly<Record<string, string>> = {
  'too-fast': 'Too fast: move the instrument evenly, about four seconds for a strip.',
  'off-row': 'The instrument left the row. Lay the ruler along the strip and read it again.',
  'started-late': 'Started late: begin on the white paper before the first patch.',
  'tile-needed': 'The white tile is due. Press T to calibrate, then read the strip.',
};

/** Reads one strip. The answer is given once the strip is stored, judging asked for with it; a failed pass stores nothing. */
export async function readStrip(context: Context, code: string, input: PassInput): Promise<PassAnswer> {
  const data = await deskData(context, code);
  const { sheet, print, chart, condition } = data;
  const instrument = requireInstrument(data);
  const strips = chart.layout.pages[sheet.page - 1];
  if (!Number.isInteger(input.strip) || input.strip < 1 || input.strip > strips.length)
    throw new Problem(
      'bad-input',
      `${code} has strips 1 to ${strips.length}.`,
      'Choose one of them.',
      'strip',
    );
  const driver = context.instruments.get(instrument.driver);
  if (driver === undefined)
    throw new Problem(
      'not-ready',
      `${instrument.name} is not connected.`,
      'Connect it, or drop a measurement file here.',
    );
  const nowMs = await domainNow(context);
  const patchesOf = (
    index: number,
  ): { device: Float64Array; page: number; strip: number; strips: number } => ({
    device: gatherRows(print.deviceValues, strips[index], channelCount(condition.process)),
    page: sheet.page,
    strip: index + 1,
    strips: strips.length,
  });
  const index = input.strip - 1;
  const other = (index + 1) % strips.length;
  const outcome = driver.readStrip({
    printState: sheet.printState,
    patches: patchesOf(index),
    otherPatches: patchesOf(other),
    mode: input.mode,
    attempt: input.attempt,
    timeMs: nowMs,
    tileMs: instrument.tileMs ?? undefined,
    hand: input.hand,
    biasFromMs: (await context.circumstances(context, condition.id)).find(({ kind }) => kind === 'instrument')
      ?.fromMs,
  });
  if (!outcome.ok) return { ok: false, reason: outcome.failure, words: FAILURE_WORDS[outcome.failure] };
  const asRead: StripRow = {
    page: sheet.page,
    strip: input.strip,
    attempt: input.attempt,
    reversed: false,
    kind: 'spectra',
    grid: outcome.grid,
    values: outcome.spectra,
    readMs: nowMs,
  };
  const expectedAll = await expectedLab(context, print.conditionId, condition.process, print.deviceValues);
  const expected = strips.map((rows) => gatherRows(expectedAll, rows, 3));
  const match = matchStrip(stripLab(asRead), expected, index);
  if (match.strip !== index)
    return {
      ok: false,
      reason: 'other-strip',
      looksLike: match.strip + 1,
      words: `This looks like strip ${match.strip + 1}. Lay the instrument on strip ${input.strip} and read it again.`,
    };
  const strip = match.reversed
    ? { ...asRead, reversed: true, values: turned(asRead.values, outcome.grid.count) }
    : asRead;
  const stored = await unitOfWork(context, async (inner) => {
    const keep = { mode: input.mode, source: 'desk', nowMs, more: input.more } as const;
    const first = await storeStrips(inner, data, { ...keep, strips: [strip] });
    const others = input.averageWith ?? [];
    if (others.length === 0) return { ...first, shown: strip, spread: null };
    const passes = await listPasses(inner.database, first.readingId, strip.page, strip.strip, [
      ...others,
      input.attempt,
    ]);
    const { values, spread } = averageOf(passes);
    const average = { ...strip, attempt: `mean of ${passes.length} ${input.attempt}`.slice(0, 60), values };
    const again = await storeStrips(inner, data, { ...keep, strips: [average] });
    return { ...again, shown: average, spread };
  });
  return {
    ok: true,
    strip: input.strip,
    measured: hexRow(stripLab(stored.shown)),
    expected: hexRow(expected[index]),
    reversed: match.reversed,
    complete: stored.complete,
    readingId: stored.readingId,
    spread: stored.spread,
  };
}

/** Mean reflectance of several passes, and the mean ΔE00 of the passes to it. */
function averageOf(passes: readonly StripRow[]): { values: Float64Array; spread: number } {
  const values = new Float64Array(passes[0].values.length);
  for (const pass of passes) pass.values.forEach((value, i) => (values[i] += value / passes.length));
  const middle = stripLab({ ...passes[0], values });
  return { values, spread: mean(passes.flatMap((pass) => [...deltaE2000Rows(middle, stripLab(pass))])) };
}

function turned(values: Float64Array, bands: number): Float64Array {
  const out = new Float64Array(values.length);
  const count = values.length / bands;
  for (let i = 0; i < count; i++)
    out.set(values.subarray(i * bands, (i + 1) * bands), (count - 1 - i) * bands);
  return out;
}
