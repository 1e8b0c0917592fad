import { PROCESS_INKS } from '../tone/toneMeasure.ts';

/** Filters of densities in the order of `Densities`: red reads cyan, green magenta, blue yellow, visual black. */
export const FILTERS = ['red', 'green', 'blue', 'visual'] as const;
export type DensityFilter = (typeof FILTERS)[number];

/** Units that one press may have in line. */
export const MOST_UNITS = 8;

/** An inking unit of a press with the ink that it carries, in the order of printing. */
export interface PressUnit {
  /** C, M, Y, K for process inks, otherwise the name of the spot colour. */
  readonly ink: string;
  /** The filter that the ink is dense through. */
  readonly filter: DensityFilter;
  /** Largest ΔE00 of its solid that its colour list allows; the run's own tolerance where that is not told. */
  readonly tolerance?: number;
}

/** Whether a unit carries one of the four process inks. */
export function isProcessUnit({ ink }: Pick<PressUnit, 'ink'>): boolean {
  return PROCESS_INKS.includes(ink);
}

/** Unit of a process ink. */
export function processUnit(ink: 'C' | 'M' | 'Y' | 'K'): PressUnit {
  return { ink, filter: FILTERS[PROCESS_INKS.indexOf(ink)] };
}

/** The place of a process ink among the units, -1 where the press does not print it. */
export function unitOf(units: readonly PressUnit[], ink: string): number {
  return units.findIndex((unit) => unit.ink === ink);
}
