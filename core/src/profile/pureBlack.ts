import type { ForwardGrid } from './forwardGrid.ts';
import { deviceTable } from './manyInkTable.ts';

const HALVINGS = 24;

/**
 * Gives every neutral node of an inverse table black alone, at the amount whose lightness is nearest; what is darker
 * than solid black becomes solid black. Nodes beside the grey axis keep all inks, so colours stay as they are.
 * @param nodes Lab of the table's nodes, row-major × 3: those with a* = b* = 0 are neutral.
 * @param wanted Lab that each node is to print.
 * @param inks node × ink, changed in place.
 * @param black channel of the black ink.
 */
export function setPureBlack(
  grid: ForwardGrid,
  nodes: Float64Array,
  wanted: Float64Array,
  inks: Float64Array,
  mostBlack: number,
  black = 3,
): void {
  const table = deviceTable(grid);
  const own = new Float64Array(grid.channels);
  const lightness = (amount: number): number => {
    own[black] = amount;
    table.evaluate(own);
    return table.lab[0];
  };
  for (let i = 0; i * 3 < nodes.length; i++) {
    if (nodes[3 * i + 1] !== 0 || nodes[3 * i + 2] !== 0) continue;
    let [low, high] = [0, mostBlack];
    for (let step = 0; step < HALVINGS; step++) {
      const middle = (low + high) / 2;
      if (lightness(middle) > wanted[3 * i]) low = middle;
      else high = middle;
    }
    own[black] = wanted[3 * i] >= 100 ? 0 : high;
    inks.set(own, own.length * i);
  }
}
