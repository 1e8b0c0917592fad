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

/** Runs that a zero reading was made of; others are its checks where they were printed alike. */
export interface WatchedRuns {
  readonly ids: readonly number[];
  readonly aimSetId: number;
  /** Curves of the plates; null for none. */
  readonly curvesResultId: number | null;
  readonly mode: string;
}

/** A watch as it was set up: its schedule, its limits and its zero reading. */
export interface WatchDetail extends WatchSchedule {
  /** Readings that the zero reading is the mean of, and its figures. */
  readonly readings: readonly number[];
  /** Where it is made of runs instead: what they have in common. */
  readonly runs?: WatchedRuns;
  /** XYZ as the watch's figures order them; null at a place across the width that nothing tells of. */
  readonly zero: readonly (number | null)[];
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
  detail: Type.Object({
    ...SCHEDULE,
    readings: NUMBERS,
    runs: Type.Optional(
      Type.Object({
        ids: NUMBERS,
        aimSetId: Type.Number(),
        curvesResultId: Type.Union([Type.Number(), Type.Null()]),
        mode: Type.String(),
      }),
    ),
    zero: Type.Array(Type.Union([Type.Number(), Type.Null()])),
    judgedBy: Type.Unknown(),
  }),
  // Its picture is drawn from where the watch stands, which is no part of how it was set up.
  picture: () => ({}),
  reports: false,
};
