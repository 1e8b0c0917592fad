import type { Lab } from '../colour/lab.ts';

export type PublishedPrimary = 'paper' | 'C' | 'M' | 'Y' | 'K' | 'MY' | 'CY' | 'CM' | 'CMY';

/** What is published of a printing condition: primaries, and tone value increase of its inks. */
export interface PublishedCondition {
  readonly key: string;
  readonly name: string;
  /** The words of its data file. */
  readonly origin: string;
  /** Patches that the full characterisation has. */
  readonly patches: number;
  readonly lab: Readonly<Record<PublishedPrimary, Lab>>;
  /** [tone value, increase], per cent, by ascending tone value; nought at 0 and 100. */
  readonly tvi: Readonly<Record<'C' | 'M' | 'Y' | 'K', readonly (readonly [number, number])[]>>;
}
