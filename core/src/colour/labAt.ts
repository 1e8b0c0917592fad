import type { Lab } from './lab.ts';

/** One row of row-major L*, a*, b*. */
export function labAt(lab: ArrayLike<number>, row: number): Lab {
  return [lab[3 * row], lab[3 * row + 1], lab[3 * row + 2]];
}
