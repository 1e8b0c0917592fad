import { inkModelXyz } from '../characterise/inkModel.ts';
import type { ModelOfInks } from '../characterise/inkModel.ts';
import type { Separation } from '../separate/separation.ts';
import { xyzRowsToRelativeLab } from './forwardGrid.ts';
import type { ForwardGrid } from './forwardGrid.ts';
import { InkSearch } from './inkSearch.ts';
import { deviceTable } from './manyInkTable.ts';

/** Media-relative Lab (row-major × 3) of device rows. */
export type RowsToLab = (device: Float64Array, out: Float64Array) => void;

/** A colour that is missed by more, ΔE*ab, does not print; what the table says of it is of no use. */
const PRINTS = 1;
/** Rounds in which the table is aimed beside by what it differs from the model. */
const ROUNDS = 2;

/** What a model prints, relative to its own paper. */
export function relativeModelLab(model: ModelOfInks): RowsToLab {
  const paper = new Float64Array(3);
  inkModelXyz(model, new Float64Array(model.inks), paper);
  return (device, out) => {
    inkModelXyz(model, device, out);
    xyzRowsToRelativeLab(out, paper);
  };
}

/**
 * Moves inks that the table says make their colours so that the model says so: a table of many inks has few nodes along
 * each, and is looked through beside the mark by as much as it misses the model there.
 * @param targets row-major × 3.
 * @param device row-major × ink, changed in place.
 * @param distance ΔE*ab by which each target is missed in the table.
 */
export function meetModel(
  grid: ForwardGrid,
  modelLab: RowsToLab,
  targets: Float64Array,
  device: Float64Array,
  distance: Float64Array,
  separation: Separation,
  darkest: number,
): void {
  const inks = grid.channels;
  const rows = [...distance.keys()].filter((row) => distance[row] < PRINTS);
  const search = new InkSearch(grid, separation, darkest);
  const table = deviceTable(grid);
  const own = new Float64Array(rows.length * inks);
  const lab = new Float64Array(rows.length * 3);
  for (let round = 0; round < ROUNDS; round++) {
    rows.forEach((row, i) => own.set(device.subarray(inks * row, inks * (row + 1)), inks * i));
    modelLab(own, lab);
    rows.forEach((row, i) => {
      const here = own.subarray(inks * i, inks * (i + 1));
      const at = 3 * row;
      search.aim(targets[at], targets[at + 1], targets[at + 2]);
      table.evaluate(here);
      const [l, a, b] = table.lab;
      search.aimBeside(l - lab[3 * i], a - lab[3 * i + 1], b - lab[3 * i + 2]);
      if (search.refine(here)) device.set(search.x, inks * row);
    });
  }
}
