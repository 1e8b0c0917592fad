/** How much is printed and built for the profiles of the sample house. */
export interface SampleSize {
  /** Patches of a profile's chart at most. */
  readonly patches: number;
  readonly tableSize: 'small' | 'normal';
}

export const WHOLE: SampleSize = { patches: Infinity, tableSize: 'normal' };
/** The same house with the same states, of fewer patches: what a test loads. */
export const THIN: SampleSize = { patches: 240, tableSize: 'small' };
