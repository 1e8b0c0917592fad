import { Type } from '@sinclair/typebox';
import type { GamutFigures } from '@melto/core/gamut/gamutFigures';
import type { ResultKind } from '../resultKind.ts';
import { GAMUT, NUMBERS, ROWS_OF_NUMBERS, WORDS, orNull } from './forms.ts';
import type { ProfileComparison } from './profileKind.ts';

/** A profile that somebody else has built. */
export interface GivenProfileSummary {
  readonly name: string;
  /** Of the ICC specification, as 2.1 or 4.4. */
  readonly version: string;
  /** Who made it and for what, as whoever took it says. */
  readonly origin: string;
  readonly bytes: number;
  /** Printed ramps from paper to solid, Lab, nine steps each. */
  readonly ramps: readonly (readonly (readonly number[])[])[];
  /** Outline of the gamut in a*b*. */
  readonly outline: readonly (readonly [number, number])[];
  readonly warnings: readonly string[];
  /** What prints; absent in profiles from before it was worked out. */
  readonly gamut?: GamutFigures;
}

export interface GivenProfileDetail {
  readonly fileName: string;
  /** Day it says it was made; null where it does not say. */
  readonly made: string | null;
  /** Rendering intents with a table of their own. */
  readonly intents: readonly string[];
  /** Lab of paper and of the darkest neutral, absolute. */
  readonly white: readonly number[];
  readonly black: readonly number[];
  /** Largest |a*|, |b*| of asked greys, relative. */
  readonly cast: number;
  /** Most total ink along the greys, 1 = 100 %; null without inks. */
  readonly totalInk: number | null;
  /** Greys asked for and the device values they get. */
  readonly greys: readonly { readonly asked: number; readonly device: readonly number[] }[];
  /** ΔE00 of its table to the data it carries; null where it carries none. */
  readonly fit: { readonly mean: number; readonly p95: number; readonly largest: number } | null;
  /** Against the profile that was in force before. */
  readonly compared?: ProfileComparison;
}

export const GIVEN_PROFILE: ResultKind<GivenProfileSummary, GivenProfileDetail> = {
  shape: 'given-profile',
  link: 'profile',
  version: 1,
  summary: Type.Object({
    name: Type.String(),
    version: Type.String(),
    origin: Type.String(),
    bytes: Type.Integer(),
    ramps: Type.Array(ROWS_OF_NUMBERS),
    outline: ROWS_OF_NUMBERS,
    warnings: WORDS,
    gamut: GAMUT,
  }),
  detail: Type.Object({
    fileName: Type.String(),
    made: orNull(Type.String()),
    intents: WORDS,
    white: NUMBERS,
    black: NUMBERS,
    cast: Type.Number(),
    totalInk: orNull(Type.Number()),
    greys: Type.Array(Type.Object({ asked: Type.Number(), device: NUMBERS })),
    fit: orNull(Type.Object({ mean: Type.Number(), p95: Type.Number(), largest: Type.Number() })),
  }),
  picture: ({ summary: { outline } }) => ({
    picture: { kind: 'outline', points: outline },
    figures: 'from elsewhere',
  }),
  reports: false,
};
