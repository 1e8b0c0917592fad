import { Type } from '@sinclair/typebox';
import type { FitReport } from '@melto/core/characterise/fitReport';
import type { UncertaintyMap } from '@melto/core/characterise/uncertaintyMap';
import type { ErrorSummary } from '@melto/core/numerics/statistics';
import type { TableSize } from '@melto/core/profile/buildRgbProfile';
import type { InkProfileReport } from '@melto/core/profile/inkReport';
import type { PredictedApart, ProfileFigures } from '@melto/core/profile/profileFigures';
import type { Observer } from '@melto/core/spectral/xyzWeights';
import type { SeparationChoice } from '@melto/core/separate/separation';
import type { GamutFigures } from '@melto/core/gamut/gamutFigures';
import type { ResultKind } from '../resultKind.ts';
import { ERRORS, GAMUT, NUMBERS, ROWS_OF_NUMBERS, WORDS, orNull } from './forms.ts';

export interface ProfileChoices {
  readonly readingId: number;
  /** Further readings of charts printed through the same curves: a second chart, a refinement. */
  readonly addedReadingIds?: readonly number[];
  /** What whoever takes the profile should know. */
  readonly note?: string;
  readonly version: 2 | 4;
  readonly tableSize: TableSize;
  readonly namePattern: string;
  /** The light that it is for, where that is not D50 for the 2° observer. */
  readonly light?: LightChoice;
  /** Ink devices: black generation, and total ink at the input of the curves (1 = 100 %). */
  readonly separation?: SeparationChoice;
}

/** A light of the library, and who looks. */
export interface LightChoice {
  readonly key: string;
  readonly observer: Observer;
  /** Share of the ultraviolet of M1 that acts in it, with the readings of the same sheets in M2, in the order of the readings. */
  readonly uv?: { readonly share: number; readonly withoutReadingIds: readonly number[] };
}

export interface ProfileSummary {
  readonly name: string;
  readonly version: 2 | 4;
  readonly tableSize: TableSize;
  readonly mean: number;
  readonly p95: number;
  readonly largest: number;
  readonly repeatability: number | null;
  readonly bytes: number;
  readonly mode: string;
  readonly code: string;
  readonly patches: number;
  /** Printed ramps R, G, B and grey from paper to solid, Lab, nine steps each. */
  readonly ramps: readonly (readonly (readonly number[])[])[];
  /** Outline of the gamut in a*b*. */
  readonly outline: readonly (readonly [number, number])[];
  /** The reading was made before its sheet had rested, or shows faults. */
  readonly warnings: readonly string[];
  /** What prints; absent in profiles from before it was worked out. */
  readonly gamut?: GamutFigures;
  /** Name of the light that it is for, and who looks; absent where that is D50 for the 2° observer. */
  readonly light?: string;
}

/** A patch of a reading, by its row in the chart. */
export interface PatchOfReading {
  readonly readingId: number;
  readonly code: string;
  readonly row: number;
}

type Compared = Pick<ProfileFigures, 'fit' | 'white' | 'black' | 'cast' | 'totalInk'>;

/** A new profile beside the one that was in force. */
export interface ProfileComparison {
  readonly version: number;
  readonly before: Compared;
  readonly after: Compared;
  /** ΔE00 between what the two predict at the same device values. */
  readonly difference: ErrorSummary;
  /** Of a profile for a light: the colours that it moves most, the first one first. */
  readonly moved?: readonly PredictedApart[];
}

/** A colour that was wanted, before and after. */
export interface WantedFigures {
  readonly name: string;
  readonly asked: readonly number[];
  /** ΔE00 as the earlier profile printed it: measured. */
  readonly before: number;
  /** ΔE00 as this profile will print it, by its model. */
  readonly after: number;
}

export interface RefinementFigures {
  readonly sheets: readonly string[];
  readonly addedPatches: number;
  /** Mean ΔE00 of papers and overprints between the first sheet and the added ones. */
  readonly agreement: number | null;
  readonly wanted: readonly WantedFigures[];
  /** Mean ΔE00 of the first chart's patches without the added ones and with them, cross-validated. */
  readonly elsewhere: { readonly before: number; readonly after: number };
}

export interface ProfileDetail {
  readonly choices: ProfileChoices;
  readonly report: FitReport;
  /** What the colorimetric intent makes of a neutral ramp: asked L*, device, printed Lab. */
  readonly neutral: readonly {
    readonly asked: number;
    readonly device: readonly number[];
    readonly lab: readonly number[];
  }[];
  /** Ink devices: what the separations came to. */
  readonly inks?: Pick<InkProfileReport, 'roundTrip' | 'totalInk' | 'reversals'>;
  /** Patches that disagree with the rest: worth another reading. */
  readonly suspicious?: readonly PatchOfReading[];
  /** Where the model is sure and where not. */
  readonly uncertainty?: UncertaintyMap;
  /** Largest bends along 200 paths, ΔE*ab a step of 2. */
  readonly smoothness?: { readonly colorimetric: ErrorSummary; readonly perceptual: ErrorSummary };
  /** Against the profile that was in force before. */
  readonly compared?: ProfileComparison;
  /** Where readings were added. */
  readonly refinement?: RefinementFigures;
}

export const PROFILE: ResultKind<ProfileSummary, ProfileDetail> = {
  shape: 'profile',
  link: 'profile',
  version: 1,
  summary: Type.Object({
    name: Type.String(),
    version: Type.Union([Type.Literal(2), Type.Literal(4)]),
    tableSize: Type.String(),
    mean: Type.Number(),
    p95: Type.Number(),
    largest: Type.Number(),
    repeatability: orNull(Type.Number()),
    bytes: Type.Integer(),
    mode: Type.String(),
    code: Type.String(),
    patches: Type.Integer(),
    ramps: Type.Array(ROWS_OF_NUMBERS),
    outline: ROWS_OF_NUMBERS,
    warnings: WORDS,
    gamut: GAMUT,
    light: Type.Optional(Type.String()),
  }),
  detail: Type.Object({
    choices: Type.Object({ readingId: Type.Number(), namePattern: Type.String() }),
    report: Type.Object({ patches: Type.Number(), summary: ERRORS, worst: Type.Array(Type.Object({})) }),
    neutral: Type.Array(Type.Object({ asked: Type.Number(), device: NUMBERS, lab: NUMBERS })),
  }),
  picture: ({ summary: { outline, mean } }) => ({
    picture: { kind: 'outline', points: outline },
    figures: `fit ${mean.toFixed(2)}`,
  }),
  reports: false,
};
