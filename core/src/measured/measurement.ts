import type { PatchSet } from '../cgats/patchSet.ts';
import type { Mode } from './columns.ts';
import type { ToldConditions } from './conditions.ts';
import type { DeviceScale } from '../device/deviceScale.ts';
import type { DamagedRow } from './measuredTable.ts';

/** What a file leaves open, and what a person may say to it. */
export type Question =
  | { readonly asks: 'mode'; readonly options: readonly Mode[] }
  | {
      readonly asks: 'scale';
      readonly process: string;
      readonly channels: number;
      readonly options: readonly DeviceScale[];
    }
  | { readonly asks: 'light'; readonly options: readonly ['D50 2°'] }
  | { readonly asks: 'table'; readonly options: readonly string[] };

/** What a person said to the questions of a file. */
export interface Answers {
  readonly mode?: Mode;
  readonly scale?: DeviceScale;
  /** The colours are for D50 and the 2° observer. */
  readonly light?: 'D50 2°';
  /** The spectra still hold the instrument's bandpass, as wide as their interval: take it out. */
  readonly bandpass?: 'take out';
  /** Which table of the file to take, as the question named it. */
  readonly table?: string;
}

/** The colours of one measurement mode. */
export interface MeasuredMode {
  /** Undefined while it is neither told nor answered. */
  readonly mode: Mode | undefined;
  readonly set: PatchSet;
  /** For each patch the place it says it stands at (`A1`), where the file has one. */
  readonly places?: readonly string[];
}

/** A file of measurements, as far as it is clear. */
export interface Measurement {
  readonly modes: readonly MeasuredMode[];
  readonly told: ToldConditions;
  readonly questions: readonly Question[];
  /** Columns that nothing was made of. */
  readonly unused: readonly string[];
  /** Rows that were left out. */
  readonly damaged: readonly DamagedRow[];
  /** What had to be decided, in words. */
  readonly notes: readonly string[];
}
