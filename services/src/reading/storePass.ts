import { gatherRows } from '@melto/core/numerics/gatherRows';
import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { mean } from '@melto/core/numerics/statistics';
import type { MeasurementMode } from '@melto/core/device/instrument';
import { matchStrip } from '@melto/core/faults/matchStrip';
import { listPasses } from '@melto/store/strips';
import type { StripRow } from '@melto/store/strips';
import { domainNow } from '../kernel/clock.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { deskData, hexRow, requireStrip, stripLab } from './deskData.ts';
import type { DeskData } from './deskData.ts';
import { expectedLab } from './expected.ts';
import { requireReader } from './requireReader.ts';
import { spectraOf } from './spectraOf.ts';
import { storeStrips } from './storeStrips.ts';

export interface PassInput {
  /** Made by the client, so that a retried request is the same pass. */
  readonly attempt: string;
  readonly strip: number;
  readonly mode: MeasurementMode;
  /** Id of the instrument that read it. */
  readonly instrument: number;
  readonly startNm: number;
  readonly stepNm: number;
  /** Reflectance factors of each patch, in the order they were passed. */
  readonly spectra: readonly (readonly number[])[];
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

/**
 * Stores a pass that an instrument made of a strip, once it is that strip. The answer is given when it is stored, judging
 * asked for with it; what is another strip stores nothing.
 */
export async function storePass(context: Context, code: string, input: PassInput): Promise<PassAnswer> {
  return storePassOf(context, await deskData(context, code), input);
}

/** The same for a sheet that is at hand already. */
export async function storePassOf(context: Context, data: DeskData, input: PassInput): Promise<PassAnswer> {
  const { sheet, print, chart, condition } = data;
  const { code } = sheet;
  const strips = chart.layout.pages[sheet.page - 1];
  requireStrip(code, input.strip, strips.length);
  const index = input.strip - 1;
  const instrument = await requireReader(context, data, input.instrument, input.mode);
  const { grid, values } = spectraOf(input, strips[index].length);
  const nowMs = await domainNow(context);
  const asRead: StripRow = {
    page: sheet.page,
    strip: input.strip,
    attempt: input.attempt,
    reversed: false,
    kind: 'spectra',
    grid,
    values,
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
    ? { ...asRead, reversed: true, values: turned(asRead.values, grid.count) }
    : asRead;
  const stored = await unitOfWork(context, async (inner) => {
    const keep = { mode: input.mode, source: 'desk', nowMs, more: input.more } as const;
    const first = await storeStrips(inner, { ...data, instrument }, { ...keep, strips: [strip] });
    const others = input.averageWith ?? [];
    if (others.length === 0) return { ...first, shown: strip, spread: null };
    const passes = await listPasses(inner.database, first.readingId, strip.page, strip.strip, [
      ...others,
      input.attempt,
    ]);
    const { values, spread } = averageOf(passes);
    const average = { ...strip, attempt: `mean of ${passes.length} ${input.attempt}`.slice(0, 60), values };
    const again = await storeStrips(inner, { ...data, instrument }, { ...keep, strips: [average] });
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
