import { Type } from '@sinclair/typebox';
import type { ResultKind } from '../resultKind.ts';
import { NUMBERS } from './forms.ts';

export interface WatchSchedule {
  readonly everyDays: number;
  readonly expiresDays: number;
  /** Largest ΔE00 to the zero reading, on the mean and of a patch. */
  readonly meanLimit: number;
  readonly largestLimit: number;
}

export interface WatchSummary extends WatchSchedule {
  readonly readings: number;
  readonly code: string;
}

/** A watch as it was set up: its schedule, its limits and its zero reading. */
export interface WatchDetail extends WatchSchedule {
  /** Readings that the zero reading is the mean of, and its figures. */
  readonly readings: readonly number[];
  readonly zero: readonly number[];
  /** Way of the wedge to the device, for devices that take RGB. */
  readonly judgedBy: unknown;
}

const SCHEDULE = {
  everyDays: Type.Number(),
  expiresDays: Type.Number(),
  meanLimit: Type.Number(),
  largestLimit: Type.Number(),
};

export const WATCH: ResultKind<WatchSummary, WatchDetail> = {
  shape: 'watch',
  link: 'watch',
  version: 1,
  summary: Type.Object({ ...SCHEDULE, readings: Type.Number(), code: Type.String() }),
  detail: Type.Object({ ...SCHEDULE, readings: NUMBERS, zero: NUMBERS, judgedBy: Type.Unknown() }),
  // Its picture is drawn from where the watch stands, which is no part of how it was set up.
  picture: () => ({}),
  reports: false,
};
