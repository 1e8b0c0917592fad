import { insertResult } from '@melto/store/results';
import { EVENNESS } from '../ledger/kinds/evennessKind.ts';
import type { EvennessDetail, EvennessSummary } from '../ledger/kinds/evennessKind.ts';
import { toStore } from '../ledger/resultKind.ts';
import type { Stored } from '../ledger/resultKind.ts';
import { storedResult } from '../ledger/storedResult.ts';
import { placesAcross } from '@melto/core/charts/placesAcross';
import { evennessOf } from '@melto/core/evenness/evenness';
import type { Evenness } from '@melto/core/evenness/evenness';
import { gatherRows } from '@melto/core/numerics/gatherRows';
import { domainNow } from '../kernel/clock.ts';
import type { Context } from '../kernel/context.ts';
import { pressReading } from './pressReading.ts';
import type { PressReading } from './pressReading.ts';

/** The width as a reading shows it; new corrections include those that were in force. */
export async function measureEvenness(context: Context, reading: PressReading): Promise<Evenness> {
  const { print, chart, rows, device, xyz, densities } = reading;
  const present =
    print.evennessResultId === null
      ? undefined
      : (await storedResult(context, print.evennessResultId, EVENNESS)).detail.zones;
  return evennessOf(device, xyz, densities, gatherRows(placesAcross(chart.layout), rows, 1), present);
}

/** Corrections of the zones from a reading of an evenness chart, as a new version. */
export async function correctEvenness(
  context: Context,
  conditionId: number,
  readingId: number,
): Promise<{ readonly id: number }> {
  const { summary, detail } = await workEvenness(context, conditionId, readingId);
  return insertResult(
    context.database,
    {
      conditionId,
      ...toStore(EVENNESS, { summary, detail }),
      verdict: null,
      madeMs: await domainNow(context),
    },
    { readings: [readingId], results: [] },
  );
}

/** Corrections of the zones from a reading of an evenness chart; nothing is stored. */
export async function workEvenness(
  context: Context,
  conditionId: number,
  readingId: number,
): Promise<Stored<EvennessSummary, EvennessDetail>> {
  const reading = await pressReading(context, conditionId, readingId, 'evenness');
  const evenness = await measureEvenness(context, reading);
  const summary: EvennessSummary = {
    mean: evenness.mean,
    largest: evenness.largest,
    code: reading.print.code,
  };
  const detail: EvennessDetail = {
    evenness,
    zones: evenness.inks.map(({ correction }) => correction.map((share) => Math.round(share * 1e5) / 1e5)),
  };
  return { summary, detail };
}
