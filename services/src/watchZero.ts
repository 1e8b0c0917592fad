import { findResult } from '@melto/store/results';
import type { Services } from './context.ts';
import { notFound } from './problem.ts';

/** A watch as it was set up: its schedule, its limits and its zero reading. */
export interface WatchDetail {
  readonly everyDays: number;
  readonly expiresDays: number;
  /** Largest ΔE00 to the zero reading, on the mean and of a patch. */
  readonly meanLimit: number;
  readonly largestLimit: number;
  /** Readings that the zero reading is the mean of, and its figures. */
  readonly readings: readonly number[];
  readonly zero: readonly number[];
  /** Way of the wedge to the device, for devices that take RGB. */
  readonly judgedBy: unknown;
}

export async function watchDetail(services: Services, watchId: number): Promise<WatchDetail> {
  const row = await findResult(services.database, watchId);
  if (row === undefined || row.link !== 'watch') throw notFound(`watch ${watchId}`);
  return JSON.parse(row.detail) as WatchDetail;
}

export async function zeroOf(services: Services, watchId: number): Promise<Float64Array> {
  return Float64Array.from((await watchDetail(services, watchId)).zero);
}
