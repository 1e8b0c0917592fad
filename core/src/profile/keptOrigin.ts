/** Who made a profile that the house keeps. */
export const KEPT_ORIGINS = ['maker', 'paper seller', 'service', 'other'] as const;
export type KeptOrigin = (typeof KEPT_ORIGINS)[number];

/** What is said of a profile that is kept. */
export interface KeptWords {
  readonly origin: KeptOrigin;
  readonly note: string;
}
