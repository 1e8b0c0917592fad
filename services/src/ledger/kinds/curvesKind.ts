import { Type } from '@sinclair/typebox';
import type { InkLinearisation } from '@melto/core/tone/linearise';
import { isToneCurve } from '@melto/core/tone/toneCurve';
import type { ToneCurves } from '@melto/core/tone/toneCurve';
import type { ToneMeasure } from '@melto/core/tone/toneMeasure';
import type { TonePoint, TviLetter } from '@melto/core/tone/tviAim';
import type { ResultKind } from '../resultKind.ts';
import { NUMBERS, orNull, ROWS_OF_NUMBERS, WORDS } from './forms.ts';

/** What results of Curves and Balance keep of their curves. */
export interface KeptCurves {
  /** By channel; 257 outputs each, rounded to 1e-6. */
  readonly curves: readonly (readonly number[])[];
  /** The device's own spot colour tone value by device value. */
  readonly native?: readonly (readonly number[])[];
}

export const roundCurves = (curves: ToneCurves): number[][] =>
  curves.map((curve) => Array.from(curve, (value) => Math.round(value * 1e6) / 1e6));

export const keptToCurves = (kept: readonly (readonly number[])[]): ToneCurves =>
  kept.map((values) => {
    if (!isToneCurve(values)) throw new Error('a stored curve is none');
    return Float64Array.from(values);
  });

/** An aim of TVI: a letter or own points for all inks, or what an aim set asks of each ink. */
export type TviChoice =
  | { readonly letter: TviLetter }
  | { readonly points: readonly TonePoint[] }
  | {
      readonly aims: { readonly id: number; readonly name: string; readonly version: number };
      /** By channel. */
      readonly inks: readonly (readonly TonePoint[])[];
    };

export interface CurvesSummary {
  readonly round: number;
  readonly measure: ToneMeasure;
  readonly tvi: TviChoice | null;
  /** Departure of the sheet it was made from, before the correction, tone values 0..1. */
  readonly largest: number;
  readonly mean: number;
  readonly dmax: readonly number[];
  /** Printed ramps by channel from paper to solid, Lab, nine steps each. */
  readonly ramps: readonly (readonly (readonly number[])[])[];
  readonly code: string;
  /** Name of the file the curves came from. */
  readonly imported: string | null;
  /** Total ink at the device and at the input of the curves, where a limit is set. */
  readonly total: { readonly device: number; readonly input: number } | null;
}

/** One ink of a round, without its curve. */
export type InkRound = Omit<InkLinearisation, 'next'>;

export interface CurvesDetail extends KeptCurves {
  readonly inks: readonly InkRound[];
  readonly colours: readonly string[];
  readonly presentResultId: number | null;
  readonly limits: readonly number[];
}

/** Every sixteenth point is enough for a picture of 64 pixels. */
const CURVE_STEP = 16;

export const CURVES: ResultKind<CurvesSummary, CurvesDetail> = {
  shape: 'curves',
  link: 'curves',
  version: 1,
  summary: Type.Object({
    round: Type.Integer(),
    measure: Type.String(),
    tvi: orNull(Type.Object({})),
    largest: Type.Number(),
    mean: Type.Number(),
    dmax: NUMBERS,
    ramps: Type.Array(ROWS_OF_NUMBERS),
    code: Type.String(),
    imported: orNull(Type.String()),
    total: orNull(Type.Object({ device: Type.Number(), input: Type.Number() })),
  }),
  detail: Type.Object({
    curves: ROWS_OF_NUMBERS,
    native: Type.Optional(ROWS_OF_NUMBERS),
    inks: Type.Array(Type.Object({ ink: Type.String(), steps: Type.Array(Type.Object({})) })),
    colours: WORDS,
    presentResultId: orNull(Type.Number()),
    limits: NUMBERS,
  }),
  picture: ({ summary: { round, imported }, detail: { curves, colours } }) => ({
    picture: {
      kind: 'curves',
      curves: curves.map((curve) => curve.filter((_, i) => i % CURVE_STEP === 0)),
      colours,
    },
    figures: imported === null ? `round ${round}` : 'from a file',
  }),
  reports: false,
};
