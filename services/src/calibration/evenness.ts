import { placesAcross } from '@melto/core/charts/placesAcross';
import { evennessOf } from '@melto/core/evenness/evenness';
import type { Evenness } from '@melto/core/evenness/evenness';
import { gatherRows } from '@melto/core/numerics/gatherRows';
import { findResult, insertResult } from '@melto/store/results';
import { domainNow } from '../kernel/clock.ts';
import { LOCAL_PERSON } from '../kernel/context.ts';
import type { Services } from '../kernel/context.ts';
import { pressReading } from './pressReading.ts';
import type { PressReading } from './pressReading.ts';

export interface EvennessSummary {
  readonly mean: number;
  readonly largest: number;
  readonly code: string;
}

export interface EvennessDetail {
  readonly evenness: Evenness;
  /** Corrections by channel and zone, those that were in force included. */
  readonly zones: readonly (readonly number[])[];
}

/** The width as a reading shows it; new corrections include those that were in force. */
export async function measureEvenness(services: Services, reading: PressReading): Promise<Evenness> {
  const { print, chart, rows, device, xyz, densities } = reading;
  const before =
    print.evennessResultId === null ? undefined : await findResult(services.database, print.evennessResultId);
  const present = before === undefined ? undefined : (JSON.parse(before.detail) as EvennessDetail).zones;
  return evennessOf(device, xyz, densities, gatherRows(placesAcross(chart.layout), rows, 1), present);
}

/** Corrections of the zones from a reading of an evenness chart, as a new version. */
export async function correctEvenness(
  services: Services,
  conditionId: number,
  readingId: number,
): Promise<{ readonly id: number }> {
  const reading = await pressReading(services, conditionId, readingId, 'evenness');
  const evenness = await measureEvenness(services, reading);
  const summary: EvennessSummary = {
    mean: evenness.mean,
    largest: evenness.largest,
    code: reading.print.code,
  };
  const detail: EvennessDetail = {
    evenness,
    zones: evenness.inks.map(({ correction }) => correction.map((share) => Math.round(share * 1e5) / 1e5)),
  };
  const madeMs = await domainNow(services);
  return services.database.transaction((sql) =>
    insertResult(
      sql,
      { conditionId, link: 'evenness', verdict: null, summary, detail, madeMs },
      { readings: [readingId], results: [] },
      LOCAL_PERSON,
    ),
  );
}
