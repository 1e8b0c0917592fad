import { Type } from '@sinclair/typebox';
import type { Evenness } from '@melto/core/evenness/evenness';
import type { ResultKind } from '../resultKind.ts';
import { ROWS_OF_NUMBERS } from './forms.ts';

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

export const EVENNESS: ResultKind<EvennessSummary, EvennessDetail> = {
  shape: 'evenness',
  link: 'evenness',
  version: 1,
  summary: Type.Object({ mean: Type.Number(), largest: Type.Number(), code: Type.String() }),
  detail: Type.Object({
    evenness: Type.Object({ inks: Type.Array(Type.Object({ ink: Type.String() })), mean: Type.Number() }),
    zones: ROWS_OF_NUMBERS,
  }),
  picture: () => ({}),
  reports: false,
};
