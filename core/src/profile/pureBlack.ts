import type { ForwardGrid } from './forwardGrid.ts';
import { InkTable } from './inkTable.ts';

const HALVINGS = 24;

/**
 * Gives every neutral node of an inverse table black alone, at the amount whose lightness is nearest; what is darker
 * than solid black becomes solid black. Nodes beside the grey axis keep all inks, so colours stay as they are.
 * @param nodes Lab of the table's nodes, row-major × 3: those with a* = b* = 0 are neutral.
 * @param wanted Lab that each node is to print.
 * @param inks node × 4, changed in place.
 */
export function setPureBlack(
  grid: ForwardGrid,
  nodes: Float64Array,
  wanted: Float64Array,
  inks: Float64Array,
  mostBlack: number,
): void {
  const table = new InkTable(grid);
  const lightness = (black: number): number => {
    table.evaluate([0, 0, 0, black]);
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
    inks.set([0, 0, 0, wanted[3 * i] >= 100 ? 0 : high], 4 * i);
  }
}
