import type { Lab } from '../colour/lab.ts';
import { steadyHue } from '../gamut/steadyHue.ts';
import { blackOf } from '../separate/separation.ts';
import type { Separation } from '../separate/separation.ts';
import { cubeNeighbours } from './cubeNeighbours.ts';
import type { ForwardGrid } from './forwardGrid.ts';
import { InkSearch } from './inkSearch.ts';
import type { Inversion } from './invertRgb.ts';

/** A weighted cost (colour and pull of black) over which a node may have stopped in a wrong place. */
const SUSPICIOUS = 0.02;
/** A better place is taken where its cost is this share of the one before, or less. */
const BETTER = 0.97;
const SWEEPS = 3;
/** Sum of C, M, Y by which two branches differ at least, and sweeps in which the smaller one spreads. */
const BRANCH_APART = 0.1;
const BRANCH_SWEEPS = 8;
/** C*ab below which a wanted colour is a grey. */
const NEUTRAL = 1e-6;
/** A colour that is farther off (weighted) is looked for in the cells that can hold it. */
const UNMET = 0.4;

/** L* of the darkest neutral under the limits, by the table: the nearest to a* = b* = 0 of the darkest colours. */
export function darkestNeutral(grid: ForwardGrid, separation: Separation): number {
  const search = new InkSearch(grid, separation, 0);
  search.aim(0, 0, 0);
  search.solve();
  search.table.evaluate(search.x);
  return search.table.lab[0];
}

/**
 * Device values of inks whose colour, by the interpolated table itself, is nearest to each target, with black near
 * its curve and all limits kept in every node.
 *
 * A search may stop in a wrong place: where inks turn back, the table folds. So each node that did not come out is tried
 * again from what its neighbours found, and in every cell that can hold its colour.
 * @param targets row-major × 3, media-relative Lab; a cube of nodes, the last axis fastest, where `side` is told.
 * @param darkest L* of the darkest neutral, see `darkestNeutral`.
 * @param side nodes along an axis of the cube; nothing is known of neighbours where it is left out.
 * @param near inks that nearly make the targets, row-major × ink: looked beside first.
 */
export function invertInks(
  grid: ForwardGrid,
  targets: Float64Array,
  separation: Separation,
  darkest: number,
  onProgress: (fraction: number) => void = () => {},
  side?: number,
  near?: Float64Array,
): Inversion {
  const search = new InkSearch(grid, separation, darkest);
  const count = targets.length / 3;
  const inks = grid.channels;
  const device = new Float64Array(count * inks);
  const cost = new Float64Array(count);
  for (let i = 0; i < count; i++) {
    search.aim(targets[3 * i], targets[3 * i + 1], targets[3 * i + 2]);
    if (near === undefined || !search.refine(near.subarray(inks * i, inks * (i + 1)))) search.solve();
    device.set(search.x, inks * i);
    cost[i] = search.score(search.x);
    if (i % 1024 === 0) onProgress((0.75 * i) / count);
  }
  const found: Found = {
    ...{ search, inks, black: blackOf(separation), targets, device, cost },
    changed: new Int32Array(count).fill(1),
    asked: new Int32Array(count),
    turn: 1,
  };
  if (side !== undefined) askNeighbours(found, side);
  searchCells(found);
  onProgress(0.9);
  if (side !== undefined) {
    askNeighbours(found, side);
    joinBranches(found, side);
  }
  keepBlackRising(found);
  const distance = new Float64Array(count);
  for (let i = 0; i < count; i++) {
    search.aim(targets[3 * i], targets[3 * i + 1], targets[3 * i + 2]);
    distance[i] = search.distance(device.subarray(inks * i, inks * (i + 1)));
  }
  if (side !== undefined) keepHues(found);
  return { device, distance };
}

/** What was found for each node so far, changed in place. */
interface Found {
  readonly search: InkSearch;
  readonly inks: number;
  /** Channel of the black ink. */
  readonly black: number;
  readonly targets: Float64Array;
  readonly device: Float64Array;
  readonly cost: Float64Array;
  /** Turn in which each node changed last, and in which it asked its neighbours last. */
  readonly changed: Int32Array;
  readonly asked: Int32Array;
  turn: number;
}

/** Looks for the colour of a node from other inks, and keeps what comes out better. */
function tryFrom(found: Found, node: number, start: Float64Array): boolean {
  const { search, inks, device, cost } = found;
  search.attempt(start);
  const next = search.score(search.x);
  if (!(next < BETTER * cost[node] - 1e-4)) return false;
  device.set(search.x, inks * node);
  cost[node] = next;
  found.changed[node] = found.turn;
  return true;
}

/** Tries each node that did not come out from the inks of its neighbours, there and back, until nothing changes. */
function askNeighbours(found: Found, side: number): void {
  const { search, inks, targets, device, cost, changed, asked } = found;
  const beside = new Int32Array(6);
  const start = new Float64Array(inks);
  for (let sweep = 0; sweep < SWEEPS; sweep++) {
    found.turn++;
    let any = false;
    for (let step = 0; step < cost.length; step++) {
      const node = sweep % 2 === 0 ? step : cost.length - 1 - step;
      if (cost[node] <= SUSPICIOUS) continue;
      const last = asked[node];
      asked[node] = found.turn;
      let aimed = false;
      for (let i = 0, near = cubeNeighbours(node, side, beside); i < near; i++) {
        const other = beside[i];
        // It was asked before, and knows nothing new.
        if (changed[other] < last) continue;
        if (!aimed) search.aim(targets[3 * node], targets[3 * node + 1], targets[3 * node + 2]);
        aimed = true;
        for (let ink = 0; ink < inks; ink++) start[ink] = device[inks * other + ink];
        // A neighbour that came out itself may lead there, though its own colour is another.
        if (cost[other] <= SUSPICIOUS || search.score(start) < BETTER * cost[node])
          any = tryFrom(found, node, start) || any;
      }
    }
    if (!any) return;
  }
}

/**
 * Where a table folds, a colour prints with little ink and with much. Nodes that are met by far other inks than a
 * neighbour's try to be met by inks like those; the branch with less ink is kept, so that it spreads.
 */
function joinBranches(found: Found, side: number): void {
  const { search, inks, black, targets, device, cost } = found;
  const beside = new Int32Array(6);
  const chromatic = (rows: Float64Array, node: number): number => {
    let sum = 0;
    for (let ink = 0; ink < inks; ink++) if (ink !== black) sum += rows[inks * node + ink];
    return sum;
  };
  for (let sweep = 0; sweep < BRANCH_SWEEPS; sweep++) {
    let any = false;
    for (let step = 0; step < cost.length; step++) {
      const node = sweep % 2 === 0 ? step : cost.length - 1 - step;
      if (cost[node] > SUSPICIOUS) continue;
      for (let i = 0, near = cubeNeighbours(node, side, beside); i < near; i++) {
        const other = beside[i];
        if (cost[other] > SUSPICIOUS) continue;
        if (chromatic(device, other) > chromatic(device, node) - BRANCH_APART) continue;
        const start = device.slice(inks * other, inks * (other + 1));
        search.aim(targets[3 * node], targets[3 * node + 1], targets[3 * node + 2]);
        search.attempt(start);
        if (chromatic(search.x, 0) > chromatic(device, node) - BRANCH_APART) continue;
        const next = search.score(search.x);
        if (next > cost[node] + SUSPICIOUS) continue;
        device.set(search.x, inks * node);
        cost[node] = next;
        any = true;
      }
    }
    if (!any) return;
  }
}

/**
 * Neutral nodes, from paper to black: none has less black than a lighter one. Past the darkest neutral a little less
 * black beside more of the others comes nearer to what is asked, and greys would break there.
 */
function keepBlackRising(found: Found): void {
  const { search, inks, black, targets, device, cost } = found;
  const neutral = Array.from(cost.keys())
    .filter((node) => Math.hypot(targets[3 * node + 1], targets[3 * node + 2]) < NEUTRAL)
    .sort((one, other) => targets[3 * other] - targets[3 * one]);
  neutral.forEach((node, i) => {
    if (i === 0) return;
    const lighter = inks * neutral[i - 1];
    if (device[inks * node + black] >= device[lighter + black]) return;
    search.aim(targets[3 * node], targets[3 * node + 1], targets[3 * node + 2]);
    const before = device.slice(lighter, lighter + inks);
    search.besideBlack(before[black], before);
    device.set(search.x, inks * node);
    cost[node] = search.score(search.x);
  });
}

/** What does not print is printed by what is nearest at the hue that the eye sees, not at the angle of Lab. */
function keepHues({ search, inks, targets, device }: Found): void {
  for (let node = 0; node * inks < device.length; node++) {
    const wanted: Lab = [targets[3 * node], targets[3 * node + 1], targets[3 * node + 2]];
    search.aim(...wanted);
    const own = device.slice(inks * node, inks * (node + 1));
    if (search.colour(own) <= UNMET) continue;
    const [, a, b] = search.table.lab;
    const aimed = steadyHue(wanted, Math.hypot(a, b));
    if (aimed === wanted) continue;
    search.aim(...aimed);
    search.attempt(own);
    device.set(search.x, inks * node);
  }
}

/** Looks for the colours that did not come out in every cell that can hold them. */
function searchCells(found: Found): void {
  const { search, inks, targets, device, cost } = found;
  found.turn++;
  for (let node = 0; node < cost.length; node++) {
    search.aim(targets[3 * node], targets[3 * node + 1], targets[3 * node + 2]);
    const missed = search.colour(device.subarray(inks * node, inks * (node + 1)));
    if (missed <= UNMET || !search.searchCells(missed)) continue;
    device.set(search.x, inks * node);
    cost[node] = search.score(search.x);
    found.changed[node] = found.turn;
  }
}
