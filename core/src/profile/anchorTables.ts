import { choleskyFactor, choleskySolve } from '../numerics/cholesky.ts';
import { inkBounds, keepLimits } from '../separate/separation.ts';
import type { Separation } from '../separate/separation.ts';
import type { ForwardGrid } from './forwardGrid.ts';
import { InkTable } from './inkTable.ts';
import { COLORIMETRIC_AXES } from './labAxis.ts';
import { labGridPlace } from './labGrid.ts';
import { cube, moveValue, tetrahedraOfFour, tetrahedron } from './tetrahedron.ts';
import type { NodeShare } from './tetrahedron.ts';

/** Rounds over all anchors: neighbours that share a node settle. */
const ROUNDS = 8;
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
 * exactly; black moves as little as can be and all limits are kept in every node.
 * @param inverse node × 4 on the colorimetric Lab grid of `points` a side; changed in place.
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
  const bounds = inkBounds(separation);
  for (let round = 0; round < ROUNDS; round++)
    for (let i = 0; i < targets.length; i += 3) {
      const target = targets.subarray(i, i + 3);
      // Engines differ in how they interpolate: both ways are to meet the colour.
      for (const between of [cube, tetrahedron]) {
        const shares = between(labGridPlace(target, COLORIMETRIC_AXES), points);
        const device = mixed(inverse, shares, 4);
        table.evaluate(device);
        const rest = [0, 1, 2].map((o) => target[o] - table.lab[o]);
        moveValue(inverse, 4, shares, inkChange(table.jacobian, rest, device, bounds));
        for (const { node } of shares) keepLimits(inverse, 4 * node, bounds, separation);
      }
    }
}

/** What an inverse table gives for certain colours; row-major × ink. */
export function inverseAt(inverse: Float64Array, points: number, targets: Float64Array): Float64Array {
  const inks = inverse.length / points ** 3;
  const out = new Float64Array((targets.length / 3) * inks);
  for (let i = 0; i * 3 < targets.length; i++)
    out.set(
      mixed(
        inverse,
        tetrahedron(labGridPlace(targets.subarray(3 * i, 3 * i + 3), COLORIMETRIC_AXES), points),
        inks,
      ),
      inks * i,
    );
  return out;
}

function mixed(inverse: Float64Array, shares: readonly NodeShare[], inks: number): Float64Array {
  const device = new Float64Array(inks);
  for (const { node, share } of shares)
    for (let o = 0; o < inks; o++) device[o] += share * inverse[inks * node + o];
  return device;
}

/** Black moves less readily than the other inks: it belongs to the separation. */
const READINESS = [1, 1, 1, 0.1] as const;
const DAMPING = 1e-6;

/**
 * The least change of inks, black least of all, that changes the colour by `rest`; an ink that would leave its bounds
 * stays at them and the others take its part.
 * @param device where the inks are now.
 */
function inkChange(
  jacobian: Float64Array,
  rest: readonly number[],
  device: Float64Array,
  bounds: ArrayLike<number>,
): Float64Array {
  const change = new Float64Array(4);
  const free = [0, 1, 2, 3].map(() => true);
  for (let pass = 0; pass < 4; pass++) {
    const normal = new Float64Array(9);
    const weights = new Float64Array(3);
    for (let o = 0; o < 3; o++) {
      weights[o] = rest[o];
      for (let i = 0; i < 4; i++) if (!free[i]) weights[o] -= jacobian[4 * o + i] * change[i];
      for (let p = 0; p < 3; p++)
        for (let i = 0; i < 4; i++)
          if (free[i]) normal[3 * o + p] += READINESS[i] * jacobian[4 * o + i] * jacobian[4 * p + i];
      normal[4 * o] += DAMPING * normal[4 * o] + DAMPING;
    }
    if (!choleskyFactor(normal, 3)) return change;
    choleskySolve(normal, 3, weights);
    let left = false;
    for (let i = 0; i < 4; i++) {
      if (!free[i]) continue;
      change[i] = 0;
      for (let o = 0; o < 3; o++) change[i] += READINESS[i] * jacobian[4 * o + i] * weights[o];
      const next = Math.min(bounds[i], Math.max(0, device[i] + change[i])) - device[i];
      if (next === change[i]) continue;
      change[i] = next;
      free[i] = false;
      left = true;
    }
    if (!left) break;
  }
  // Where bounds leave no way to the colour, no ink moves by more than a step.
  return change.map((value) => Math.min(MOST_STEP, Math.max(-MOST_STEP, value)));
}

const MOST_STEP = 0.08;
