import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { bareRows } from '@melto/core/device/meanPaperXyz';
import { brightenerPair, brightening } from '@melto/core/light/ultraviolet';
import type { Brightening, BrightenerPair } from '@melto/core/light/ultraviolet';
import { summariseErrors } from '@melto/core/numerics/statistics';
import type { ErrorSummary } from '@melto/core/numerics/statistics';
import { issueText } from '@melto/core/result';
import { listCompleteReadings } from '@melto/store/readings';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { loadReading } from '../reading/loadReading.ts';
import type { LoadedReading } from '../reading/loadReading.ts';

/** Whether a reading can be worked out for any share of ultraviolet: by the pair that it belongs to. */
export const tellsShares = (pair: SheetBrightener | null, readingId: number): pair is SheetBrightener =>
  pair !== null && pair.withMode === 'M1' && pair.withId === readingId;

/** A sheet that was read with ultraviolet and without, and what that tells. */
export interface SheetBrightener {
  /** Readings with it, in M1 or else in M0, and without, in M2. */
  readonly withId: number;
  /** How much ultraviolet there was is known of M1 only: shares of it are told from no other. */
  readonly withMode: 'M1' | 'M0';
  readonly withoutId: number;
  /** Of the bare paper; null where the chart has none. */
  readonly paper: Brightening | null;
  /** ΔE00 of all patches between the two. */
  readonly patches: ErrorSummary;
  /** Patches that ultraviolet bends most: row of the chart, and ΔE00. */
  readonly bent: readonly { readonly row: number; readonly deltaE: number }[];
}

const MOST_READINGS = 400;
const MOST_BENT = 6;

/** The pair that a reading belongs to: its sheet's newest complete reading in M1, or else in M0, and in M2; null where one is missing. */
export async function sheetBrightener(context: Context, readingId: number): Promise<SheetBrightener | null> {
  const own = await loadReading(context, readingId);
  const readings = await listCompleteReadings(context.database, own.condition.id, { limit: MOST_READINGS });
  const ofSheet = readings.filter(({ printId }) => printId === own.print.id);
  const newest = (mode: string): number | undefined =>
    own.reading.mode === mode ? readingId : ofSheet.find((row) => row.mode === mode)?.id;
  const withMode = own.reading.mode === 'M0' || newest('M1') === undefined ? 'M0' : 'M1';
  const [withId, withoutId] = [newest(withMode), newest('M2')];
  if (withId === undefined || withoutId === undefined) return null;
  const [lit, dark] = await Promise.all([withId, withoutId].map((id) => loadReading(context, id)));
  const pair = brightenerPair(lit.set, dark.set);
  // Read by instruments of other bands, or as colours: they tell nothing together.
  if (!pair.ok) return null;
  const errors = deltaE2000Rows(lit.lab, dark.lab);
  const order = [...errors.keys()].sort((a, b) => errors[b] - errors[a]).slice(0, MOST_BENT);
  return {
    ...{ withId, withMode, withoutId },
    paper: paperOf(lit, dark),
    patches: summariseErrors(errors),
    bent: order.map((i) => ({ row: lit.rows[i], deltaE: errors[i] })),
  };
}

function paperOf(lit: LoadedReading, dark: LoadedReading): Brightening | null {
  const { device, spectra } = lit.set;
  if (device === undefined || spectra === undefined || dark.set.spectra === undefined) return null;
  const rows = bareRows(lit.condition.process, device);
  if (rows.length === 0) return null;
  const bands = spectra.grid.count;
  const mean = (values: Float64Array): Float64Array =>
    Float64Array.from({ length: bands }, (_, band) =>
      rows.reduce((sum, row) => sum + values[row * bands + band] / rows.length, 0),
    );
  return brightening(spectra.grid, mean(spectra.values), mean(dark.set.spectra.values));
}

/** Two readings of one sheet, with ultraviolet and without, laid on each other; refused where they are not that. */
export async function ultravioletPair(
  context: Context,
  lit: LoadedReading,
  withoutId: number,
): Promise<BrightenerPair> {
  const dark = await loadReading(context, withoutId);
  const refuse = (title: string): never => {
    throw new Problem('bad-input', title, 'Read the same sheet in M1 and in M2.', 'light');
  };
  if (dark.print.id !== lit.print.id)
    refuse(`${dark.print.code} and ${lit.print.code} are not the same sheet.`);
  if (lit.reading.mode !== 'M1' || dark.reading.mode !== 'M2')
    refuse(
      `${lit.print.code} was read in ${lit.reading.mode} and ${dark.reading.mode}; ultraviolet shows between M1 and M2.`,
    );
  const pair = brightenerPair(lit.set, dark.set);
  if (!pair.ok)
    throw new Problem(
      'bad-input',
      `The two readings of ${lit.print.code} do not fit: ${pair.issues.map(issueText).join('; ')}.`,
      'Read the same sheet in M1 and in M2.',
      'light',
    );
  return pair.value;
}
