import { choleskyFactor, choleskySolve } from '../numerics/cholesky.ts';
import { inkBounds } from '../separate/separation.ts';
import type { Separation } from '../separate/separation.ts';
import type { ForwardGrid } from './forwardGrid.ts';
import { InkTable } from './inkTable.ts';
import { abToAxis } from './labAxis.ts';
import { moveValue, tetrahedraOfFour, tetrahedron } from './tetrahedron.ts';
import type { NodeShare } from './tetrahedron.ts';

/** Rounds over all anchors: neighbours that share a node settle. */
const ROUNDS = 6;
/** Moves a forward table, as little as can be, so that at certain device values it gives what the model gives. */
export function anchorForward(grid: ForwardGrid, device: Float64Array, lab: Float64Array): ForwardGrid {
  const moved = { ...grid, lab: grid.lab.slice() };
  const table = new InkTable(moved);
  for (let round = 0; round < ROUNDS; round++)
    for (let i = 0; i * 4 < device.length; i++) {
      const at = device.subarray(4 * i, 4 * i + 4);
      table.evaluate(at);
      const change = [0, 1, 2].map((o) => lab[3 * i + o] - table.lab[o]);
      moveValue(moved.lab, 3, tetrahedraOfFour(at, grid.points), change);
    }
  return moved;
}

/**
 * Moves an inverse table so that certain colours, interpolated in it and sent through the forward table, come out
 * exactly; black stays as it is and all limits are kept in every node.
 * @param inverse node × 4 on the Lab grid of `points` a side; changed in place.
 * @param targets row-major × 3, media-relative Lab, all in gamut.
 */
export function anchorInverse(
  grid: ForwardGrid,
  inverse: Float64Array,
  points: number,
  targets: Float64Array,
  separation: Separation,
): void {
  const table = new InkTable(grid);
  for (let round = 0; round < ROUNDS; round++)
    for (let i = 0; i < targets.length; i += 3) {
      const shares = sharesOf(targets.subarray(i, i + 3), points);
      table.evaluate(mixed(inverse, shares));
      const rest = [0, 1, 2].map((o) => targets[i + o] - table.lab[o]);
      moveValue(inverse, 4, shares, inkChange(table.jacobian, rest));
      for (const { node } of shares) keepLimits(inverse.subarray(4 * node, 4 * node + 4), separation);
    }
}

/** What an inverse table gives for certain colours; row-major × 4. */
export function inverseAt(inverse: Float64Array, points: number, targets: Float64Array): Float64Array {
  const out = new Float64Array((targets.length / 3) * 4);
  for (let i = 0; i * 3 < targets.length; i++)
    out.set(mixed(inverse, sharesOf(targets.subarray(3 * i, 3 * i + 3), points)), 4 * i);
  return out;
}

function sharesOf(lab: ArrayLike<number>, points: number): NodeShare[] {
  return tetrahedron([lab[0] / 100, abToAxis(lab[1]), abToAxis(lab[2])], points);
}

function mixed(inverse: Float64Array, shares: readonly NodeShare[]): Float64Array {
  const device = new Float64Array(4);
  for (const { node, share } of shares)
    for (let o = 0; o < 4; o++) device[o] += share * inverse[4 * node + o];
  return device;
}

/** The least change of C, M, Y that changes the colour by `rest`. */
function inkChange(jacobian: Float64Array, rest: readonly number[]): Float64Array {
  const normal = new Float64Array(9);
  const change = new Float64Array(4);
  for (let a = 0; a < 3; a++) {
    for (let o = 0; o < 3; o++) change[a] += jacobian[4 * o + a] * rest[o];
    for (let b = 0; b < 3; b++)
      for (let o = 0; o < 3; o++) normal[3 * a + b] += jacobian[4 * o + a] * jacobian[4 * o + b];
    normal[4 * a] += 1e-3 * normal[4 * a] + 1e-6;
  }
  if (!choleskyFactor(normal, 3)) return new Float64Array(4);
  choleskySolve(normal, 3, change);
  return change;
}

function keepLimits(node: Float64Array, separation: Separation): void {
  const { totalInk } = separation;
  const inkLimits = inkBounds(separation);
  for (let o = 0; o < 4; o++) node[o] = Math.min(inkLimits[o], Math.max(0, node[o]));
  const chromatic = node[0] + node[1] + node[2];
  const over = chromatic + node[3] - totalInk;
  if (over > 0) for (let o = 0; o < 3; o++) node[o] *= Math.max(0, (chromatic - over) / chromatic);
}
