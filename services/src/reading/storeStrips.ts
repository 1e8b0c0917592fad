import { lockPrint, setSheetProgress } from '@melto/store/prints';
import { finishReading, insertReading, insertStrip, latestReading, listStrips } from '@melto/store/readings';
import type { StripRow } from '@melto/store/readings';
import type { Sql } from '@melto/store/database';
import { expectedRamps } from '../ledger/curvesInForce.ts';
import { LOCAL_PERSON } from '../kernel/context.ts';
import { assembleReading, faultsOf } from './readings.ts';
import type { DeskData } from './deskData.ts';

/** Stores strips of a print in its open reading (or a new one) and keeps the sheets' progress. */
export async function storeStrips(
  sql: Sql,
  data: Pick<DeskData, 'print' | 'chart' | 'condition' | 'instrument'>,
  mode: string,
  strips: readonly StripRow[],
  source: 'desk' | 'file',
  nowMs: number,
): Promise<{ readonly readingId: number; readonly complete: boolean; readonly added: boolean }> {
  const { print, chart, condition, instrument } = data;
  await lockPrint(sql, print.id);
  const open = await latestReading(sql, print.id);
  const readingId =
    open !== undefined && open.mode === mode && open.source === source
      ? open.id
      : await insertReading(
          sql,
          {
            printId: print.id,
            instrumentId: source === 'desk' ? instrument.id : null,
            source,
            mode,
            startedMs: nowMs,
            early: source === 'desk' && nowMs < print.restUntilMs,
          },
          LOCAL_PERSON,
        );
  let added = false;
  for (const strip of strips) if (await insertStrip(sql, readingId, strip)) added = true;
  const stored = await listStrips(sql, readingId);
  let complete = true;
  for (const [pageIndex, page] of chart.layout.pages.entries()) {
    const read = stored.filter((strip) => strip.page === pageIndex + 1).length;
    const [row] = await sql.rows<{ id: number }>('SELECT id FROM sheet WHERE print_id = ? AND page = ?', [
      print.id,
      pageIndex + 1,
    ]);
    if (row !== undefined) await setSheetProgress(sql, row.id, read, read < page.length);
    if (read < page.length) complete = false;
  }
  if (complete) {
    const reading = await latestReading(sql, print.id);
    const faults =
      reading === undefined
        ? []
        : faultsOf({
            ...assembleReading(reading, print, chart, condition, stored),
            ramps: await expectedRamps(sql, print),
          });
    await finishReading(sql, readingId, nowMs, JSON.stringify(faults));
  }
  return { readingId, complete, added };
}
