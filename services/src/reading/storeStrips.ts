import { lockPrint, setPageProgress } from '@melto/store/prints';
import {
  findReading,
  finishReading,
  insertReading,
  insertStrip,
  listStrips,
  mostStripsRead,
  openReading,
} from '@melto/store/readings';
import type { ReadingMode, ReadingSource, StripRow } from '@melto/store/readings';
import type { Context } from '../kernel/context.ts';
import { expectedRamps } from '../ledger/inForce.ts';
import type { DeskData } from './deskData.ts';
import { askForJudging } from './judgeRequest.ts';
import { assembleReading } from './loadReading.ts';
import { faultsOf } from './readingFaults.ts';

export interface StripsToStore {
  readonly mode: ReadingMode;
  readonly source: ReadingSource;
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
 * Stores strips of a print in its open reading of that mode and source (or a new one), keeps the sheets' progress and
 * asks for a complete reading to be judged, all in one unit of work.
 */
export async function storeStrips(
  inner: Context,
  data: Pick<DeskData, 'print' | 'chart' | 'condition' | 'instrument'>,
  { mode, source, strips, nowMs, more = false }: StripsToStore,
): Promise<StoredStrips> {
  const { print, chart, condition, instrument } = data;
  const sql = inner.database;
  await lockPrint(sql, print.id);
  const open = await openReading(sql, print.id, mode, source);
  const readingId =
    open?.id ??
    (await insertReading(sql, {
      printId: print.id,
      instrumentId: source === 'desk' ? instrument.id : null,
      source,
      mode,
      startedMs: nowMs,
      early: source === 'desk' && nowMs < print.restUntilMs,
    }));
  let added = false;
  for (const strip of strips) if (await insertStrip(sql, readingId, strip)) added = true;
  for (const page of new Set(strips.map((strip) => strip.page))) {
    const read = await mostStripsRead(sql, print.id, page);
    await setPageProgress(sql, print.id, page, read, read >= (chart.layout.pages[page - 1]?.length ?? 0));
  }
  const stored = await listStrips(sql, readingId);
  const complete = stored.length === chart.layout.pages.flat().length;
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
