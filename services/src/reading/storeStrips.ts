import { lockPrint, setPageProgress } from '@melto/store/prints';
import { findReading, finishReading, insertReading, openReading, setEarly } from '@melto/store/readings';
import { insertStrip, listStrips, missingPatches, mostStripsRead } from '@melto/store/strips';
import type { ReadingMode, ReadingSource } from '@melto/store/readings';
import type { StripRow } from '@melto/store/strips';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { expectedRamps } from '../ledger/inForce.ts';
import type { DeskData } from './deskData.ts';
import { askForJudging } from './judgeRequest.ts';
import { assembleReading } from './loadReading.ts';
import { earlyStrips, faultsOf } from './readingFaults.ts';

export interface StripsToStore {
  readonly mode: ReadingMode;
  readonly source: ReadingSource;
  /** JSON of what a file told of how it was measured. */
  readonly told?: string;
  readonly strips: readonly StripRow[];
  readonly nowMs: number;
  /** Another pass of the same strip follows: it is judged with that. */
  readonly more?: boolean;
}

export interface StoredStrips {
  readonly readingId: number;
  readonly complete: boolean;
  /** Something was stored that was not there before. */
  readonly added: boolean;
}

/**
 * Stores strips of a print in its open reading of that mode, source and instrument (or a new one), keeps the sheets' progress and
 * asks for a complete reading to be judged, all in one unit of work.
 */
export async function storeStrips(
  inner: Context,
  data: Pick<DeskData, 'print' | 'chart' | 'condition'> & { readonly instrument?: { readonly id: number } },
  { mode, source, told, strips, nowMs, more = false }: StripsToStore,
): Promise<StoredStrips> {
  const { print, chart, condition, instrument } = data;
  const sql = inner.database;
  await lockPrint(sql, print.id);
  const conditions = { mode, source, told: told ?? null, instrumentId: instrument?.id ?? null };
  const open = await openReading(sql, print.id, conditions);
  const readingId =
    open?.id ??
    (await insertReading(sql, {
      printId: print.id,
      ...conditions,
      startedMs: nowMs,
      early: source === 'desk' && nowMs < print.restUntilMs,
    }));
  const before = open === undefined ? [] : await listStrips(sql, open.id);
  requireSameForm(before, strips);
  let added = false;
  for (const strip of strips) if (await insertStrip(sql, readingId, filled(strip, before))) added = true;
  for (const page of new Set(strips.map((strip) => strip.page))) {
    const read = await mostStripsRead(sql, print.id, page);
    await setPageProgress(sql, print.id, page, read, read >= (chart.layout.pages[page - 1]?.length ?? 0));
  }
  const stored = await listStrips(sql, readingId);
  const early = earlyStrips({ source }, print, stored).length > 0;
  if (open !== undefined && open.early !== early) await setEarly(sql, readingId, early);
  const complete =
    stored.length === chart.layout.pages.flat().length &&
    stored.every((strip) => missingPatches(strip) === 0);
  // A pass that is sent again changes nothing, and asks for nothing.
  if (complete && added) {
    const reading = await findReading(sql, readingId);
    if (reading === undefined) throw new Error(`reading ${readingId} is gone`);
    const loaded = assembleReading(reading, print, chart, condition, stored);
    const faults = faultsOf({ ...loaded, ramps: await expectedRamps(inner, print) });
    await finishReading(sql, readingId, nowMs, JSON.stringify(faults));
    await askForJudging(inner, condition.id, readingId, more);
  }
  return { readingId, complete, added };
}

/** Strips of one reading are all spectra of one grid, or all XYZ: others would be read as what they are not. */
function requireSameForm([first]: readonly (StripRow | undefined)[], strips: readonly StripRow[]): void {
  const form = ({ kind, grid }: StripRow): string =>
    kind === 'xyz' ? 'XYZ' : `spectra from ${grid.startNm} nm in ${grid.count} steps of ${grid.stepNm} nm`;
  const other = strips.find((strip) => first !== undefined && form(strip) !== form(first));
  if (first === undefined || other === undefined) return;
  throw new Problem(
    'conflict',
    `This reading holds ${form(first)}; what came now is ${form(other)}.`,
    'Withdraw the reading first, or give all of it in one form.',
  );
}

/** A strip with the patches that it lacks taken from what stands of it already. */
function filled(strip: StripRow, before: readonly StripRow[]): StripRow {
  const old = before.find(({ page, strip: number }) => page === strip.page && number === strip.strip);
  if (old === undefined || missingPatches(strip) === 0) return strip;
  return { ...strip, values: strip.values.map((value, i) => (Number.isNaN(value) ? old.values[i] : value)) };
}
