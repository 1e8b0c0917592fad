import type { ExtraInks } from './extraInks.ts';

/** The choice of black generation and of the ink limits; inks are document values (at the input of the curves). */
export interface Separation {
  /** Lightness L* (media-relative) from which black begins, towards the darks. */
  readonly blackStart: number;
  /** Most black, reached at the darkest neutral and gone over nowhere, 0..1. */
  readonly blackMost: number;
  /** How black rises: 1 evenly, more keeps it for the darks. */
  readonly blackShape: number;
  /** Chroma at which black has faded to about a third. */
  readonly blackChroma: number;
  /** Total ink, 1 = 100 %. */
  readonly totalInk: number;
  /** Limits of the inks by channel, 0..1. */
  readonly inkLimits: readonly number[];
  /** Limits of the sum of two inks, 1 = 100 %. */
  readonly pairLimits?: readonly PairLimit[];
  /** How far extra inks take the place of overprints, 0..1; see `ExtraInks`. */
  readonly replace?: number;
  /** Of a device with more inks than C, M, Y, K: which is which, and where the others take part. */
  readonly extra?: ExtraInks;
  /** Greys of the saturation intent in black alone, for text and line work. */
  readonly pureBlack?: boolean;
}

export type BlackAmount = 'light' | 'medium' | 'heavy' | 'max';

/** What each amount of black is for. */
export const BLACK_FOR: Readonly<Record<BlackAmount, string>> = {
  light: 'smoothest lights',
  medium: 'all-round use',
  heavy: 'steady greys',
  max: 'least ink',
};

/** Black generation by a word; total ink as given, and no limit of single inks. */
export function separationOf(black: BlackAmount, totalInk: number, inks = 4): Separation {
  const shapes: Readonly<
    Record<BlackAmount, readonly [start: number, most: number, shape: number, chroma: number]>
  > = {
    light: [50, 0.9, 2.2, 22],
    medium: [72, 1, 1.6, 32],
    heavy: [88, 1, 1.25, 45],
    max: [97, 1, 1, 70],
  };
  const [blackStart, blackMost, blackShape, blackChroma] = shapes[black];
  return {
    blackStart,
    blackMost,
    blackShape,
    blackChroma,
    totalInk,
    inkLimits: new Array<number>(inks).fill(1),
  };
}

/** What two inks may lay down together, 1 = 100 %. */
export interface PairLimit {
  /** Channels of the two. */
  readonly inks: readonly number[];
  readonly most: number;
}

/** Channel of the black ink. */
export function blackOf({ extra }: Pick<Separation, 'extra'>): number {
  return extra?.black ?? 3;
}

/** Limits of the inks that hold in every node: black is bounded by its own most as well. */
export function inkBounds(separation: Separation): number[] {
  const black = blackOf(separation);
  return separation.inkLimits.map((limit, ink) =>
    ink === black ? Math.min(limit, separation.blackMost) : limit,
  );
}

/**
 * Brings inks under their bounds, the limits of pairs and the total: the others give way, black stays.
 * @param inks changed in place, from `at` on.
 */
export function keepLimits(
  inks: Float64Array,
  at: number,
  bounds: ArrayLike<number>,
  separation: Pick<Separation, 'totalInk' | 'pairLimits' | 'extra'>,
): void {
  const black = blackOf(separation);
  const count = bounds.length;
  for (let ink = 0; ink < count; ink++) inks[at + ink] = Math.min(bounds[ink], Math.max(0, inks[at + ink]));
  if (separation.pairLimits !== undefined)
    for (const {
      inks: [one, other],
      most,
    } of separation.pairLimits)
      keepPair(inks, at + one, at + other, most, at + black);
  let chromatic = 0;
  for (let ink = 0; ink < count; ink++) if (ink !== black) chromatic += inks[at + ink];
  const over = chromatic + inks[at + black] - separation.totalInk;
  if (over <= 0) return;
  const kept = Math.max(0, (chromatic - over) / chromatic);
  for (let ink = 0; ink < count; ink++) if (ink !== black) inks[at + ink] *= kept;
}

function keepPair(inks: Float64Array, one: number, other: number, most: number, black: number): void {
  const sum = inks[one] + inks[other];
  if (sum <= most) return;
  if (one === black) inks[other] = Math.max(0, most - inks[one]);
  else if (other === black) inks[one] = Math.max(0, most - inks[other]);
  else {
    inks[one] *= most / sum;
    inks[other] *= most / sum;
  }
}

/** A separation as a person chooses it: a word for the black, and what differs from it. */
export interface SeparationChoice {
  readonly black: BlackAmount;
  /** 1 = 100 %, at the input of the curves. */
  readonly totalInk: number;
  readonly blackStart?: number;
  readonly blackMost?: number;
  readonly blackShape?: number;
  readonly blackChroma?: number;
  /** Limits of the inks by channel, 0..1. */
  readonly inkLimits?: readonly number[];
  readonly pairLimits?: readonly PairLimit[];
  /** How far extra inks take the place of overprints, 0..1; see `ExtraInks`. */
  readonly replace?: number;
  readonly pureBlack?: boolean;
}

/** A separation in words: `black for all-round use, from L* 60, most 90 %; total ink 300 %; most C 95 %`. @param names of the inks. */
export function separationWords(
  choice: SeparationChoice,
  names: readonly string[] = ['C', 'M', 'Y', 'K'],
): string {
  const percent = (share: number): string => `${Math.round(100 * share)} %`;
  const { blackStart, blackMost, inkLimits } = choice;
  const black = [
    `black for ${BLACK_FOR[choice.black]}`,
    ...(blackStart === undefined ? [] : [`from L* ${blackStart.toFixed(0)}`]),
    ...(blackMost === undefined ? [] : [`most ${percent(blackMost)}`]),
  ].join(', ');
  const limits = names.flatMap((ink, i) =>
    (inkLimits?.[i] ?? 1) < 1 ? [`most ${ink} ${percent(inkLimits?.[i] ?? 1)}`] : [],
  );
  return [
    black,
    `total ink ${percent(choice.totalInk)}`,
    ...limits,
    ...(choice.pairLimits ?? []).map(
      ({ inks: [one, other], most }) => `most ${names[one]} and ${names[other]} ${percent(most)}`,
    ),
    ...(choice.replace === undefined
      ? []
      : [
          `${names.filter((ink) => !'CMYK'.includes(ink)).join(', ')} in place of overprints ${percent(choice.replace)}`,
        ]),
    ...(choice.pureBlack === true ? ['greys of the saturation intent in black alone'] : []),
  ].join('; ');
}

export function separationFrom(choice: SeparationChoice): Separation {
  const base = separationOf(choice.black, choice.totalInk);
  return {
    blackStart: choice.blackStart ?? base.blackStart,
    blackMost: choice.blackMost ?? base.blackMost,
    blackShape: choice.blackShape ?? base.blackShape,
    blackChroma: choice.blackChroma ?? base.blackChroma,
    totalInk: choice.totalInk,
    inkLimits: choice.inkLimits ?? base.inkLimits,
    ...(choice.pairLimits === undefined ? {} : { pairLimits: choice.pairLimits }),
    ...(choice.replace === undefined ? {} : { replace: choice.replace }),
    pureBlack: choice.pureBlack ?? false,
  };
}

/**
 * Black that a colour should have: a smooth function of lightness and chroma.
 * @param darkest L* of the darkest neutral the device reaches under its limits.
 */
export function blackFor(separation: Separation, darkest: number, lightness: number, chroma: number): number {
  const { blackStart, blackMost, blackShape, blackChroma } = separation;
  const depth = (blackStart - lightness) / Math.max(1, blackStart - darkest);
  if (depth <= 0) return 0;
  const rise = depth >= 1 ? 1 : depth ** blackShape;
  return blackMost * rise * Math.exp(-((chroma / blackChroma) ** 2));
}
