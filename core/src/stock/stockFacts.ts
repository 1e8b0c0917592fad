/** Optical brightener by the classes of ISO 15397. */
export const BRIGHTENERS = ['free', 'faint', 'low', 'moderate', 'high'] as const;
export type Brightener = (typeof BRIGHTENERS)[number];

/** What lies under a stock when it is measured (ISO 13655). */
export const BACKINGS = ['white', 'black', 'own'] as const;
export type Backing = (typeof BACKINGS)[number];

/** What a house knows of a stock besides its surface; what nobody told is left out. */
export interface StockFacts {
  /** g/m². */
  readonly weightGsm?: number;
  /** The side that is printed and the way it is fed, in words. */
  readonly side?: string;
  readonly backing?: Backing;
  readonly brightener?: Brightener;
  /** Price of a square metre, in the money of the house. */
  readonly pricePerM2?: number;
}

export const PRICE_PER_M2 = { minimum: 0, maximum: 10_000 } as const;
export const WEIGHT_GSM = { least: 20, most: 2000 } as const;

export const BACKING_WORDS: Readonly<Record<Backing, string>> = {
  white: 'white backing',
  black: 'black backing',
  own: 'sheets of itself',
};

export const BRIGHTENER_WORDS: Readonly<Record<Brightener, string>> = {
  free: 'free of brightener',
  faint: 'faint brightener',
  low: 'low brightener',
  moderate: 'moderate brightener',
  high: 'high brightener',
};

/** What is known of a stock, each in a few words. */
export function stockFactWords({ weightGsm, side, backing, brightener }: StockFacts): string[] {
  return [
    ...(weightGsm === undefined ? [] : [`${weightGsm} g/m²`]),
    ...(side === undefined ? [] : [side]),
    ...(brightener === undefined ? [] : [BRIGHTENER_WORDS[brightener]]),
    ...(backing === undefined ? [] : [`measured over ${BACKING_WORDS[backing]}`]),
  ];
}
