import { describe, expect, it } from 'vitest';
import { FILTER_PAPER, filterDevice } from '../characterise/testing/filterDevice.ts';
import { createRandom } from '../numerics/random.ts';
import { separationOf } from '../separate/separation.ts';
import { buildForwardGrid } from './forwardGrid.ts';
import type { ForwardGrid } from './forwardGrid.ts';
import { InkTable } from './inkTable.ts';
import { CellIndex, cellIndexOf } from './cellIndex.ts';
import { darkestNeutral, invertInks } from './invertInks.ts';

/** A device of four inks whose chromatic inks get weaker past `turn`. */
function foldedDevice(turn: number, strength: number): ForwardGrid {
  const effect = (value: number, ink: number): number =>
    ink === 3 || value <= turn
      ? value ** 0.8
      : turn ** 0.8 * (1 - strength * ((value - turn) / (1 - turn)) ** 2);
  return buildForwardGrid(4, 11, (device, out) => out.set(filterDevice(device, effect)), [...FILTER_PAPER]);
}

const SEPARATION = separationOf('medium', 3);

/** Colours that print, by the table itself. */
function printable(grid: ForwardGrid, count: number, seed: number): Float64Array {
  const random = createRandom(seed);
  const table = new InkTable(grid);
  const out = new Float64Array(3 * count);
  for (let i = 0; i < count;) {
    const inks = [0, 1, 2, 3].map(() => random.uniform());
    if (inks.reduce((a, b) => a + b, 0) > SEPARATION.totalInk) continue;
    table.evaluate(inks);
    out.set(table.lab, 3 * i++);
  }
  return out;
}

/** Nodes of a cube that all print, bent into the gamut, its light corner at the paper. */
function printableCube(grid: ForwardGrid, side: number): Float64Array {
  const table = new InkTable(grid);
  const targets = new Float64Array(3 * side ** 3);
  for (let node = 0; node < side ** 3; node++) {
    const share = (stride: number): number => (Math.floor(node / stride) % side) / (side - 1);
    table.evaluate([share(side ** 2), share(side), share(1), 0.3 * share(side ** 2)]);
    targets.set(table.lab, 3 * node);
  }
  return targets;
}

describe('inks for colours', () => {
  it.each([
    ['even inks', 1, 0],
    ['inks that turn a little past 90 %', 0.9, 0.06],
    ['inks that turn much past 80 %', 0.8, 0.25],
  ])('%s: what prints is found', (_, turn, strength) => {
    const grid = foldedDevice(turn, strength);
    const { device, distance } = invertInks(
      grid,
      printable(grid, 600, 4),
      SEPARATION,
      darkestNeutral(grid, SEPARATION),
    );
    expect([...distance].filter((apart) => apart > 1.2)).toEqual([]);
    for (let i = 0; i < device.length; i += 4) {
      expect(device[i] + device[i + 1] + device[i + 2] + device[i + 3]).toBeLessThanOrEqual(3 + 1e-9);
      for (let ink = 0; ink < 4; ink++) expect(device[i + ink]).toBeGreaterThanOrEqual(0);
    }
  });

  it('of a cube are found where they print, whatever its other nodes are', () => {
    const grid = foldedDevice(0.8, 0.25);
    const side = 9;
    const targets = printableCube(grid, side);
    const darkest = darkestNeutral(grid, SEPARATION);
    const { distance } = invertInks(grid, targets, SEPARATION, darkest, () => {}, side);
    expect([...distance].filter((apart) => apart > 1.2)).toEqual([]);
  });

  it('are those of one branch where inks turn back: the one with less ink', () => {
    const grid = foldedDevice(0.8, 0.25);
    const side = 9;
    const targets = printableCube(grid, side);
    const darkest = darkestNeutral(grid, SEPARATION);
    const apart = invertInks(grid, targets, SEPARATION, darkest).device;
    const { device } = invertInks(grid, targets, SEPARATION, darkest, () => {}, side);
    const past = (inks: Float64Array): number => inks.filter((value, i) => i % 4 < 3 && value > 0.86).length;
    expect(past(apart)).toBeGreaterThan(3 * past(device) + 10);
  });

  it('outside of the gamut are left at its surface, and their distance is told', () => {
    const grid = foldedDevice(1, 0);
    const darkest = darkestNeutral(grid, SEPARATION);
    const { distance } = invertInks(grid, Float64Array.of(50, 120, 0, 100, 0, 0), SEPARATION, darkest);
    expect(distance[0]).toBeGreaterThan(20);
    expect(distance[1]).toBeLessThan(1e-6);
  });
});

describe('the cells that can hold a colour', () => {
  it('hold every colour that prints, and none that does not', () => {
    const grid = foldedDevice(0.8, 0.25);
    const index = new CellIndex(grid, SEPARATION);
    const random = createRandom(9);
    const table = new InkTable(grid);
    for (let i = 0; i < 300; i++) {
      const inks = [0, 1, 2, 3].map(() => 0.7 * random.uniform());
      table.evaluate(inks);
      const [l, a, b] = table.lab;
      const holds = index
        .around(l, a, b)
        .some((cell) =>
          inks.every(
            (value, ink) =>
              value >= index.corners[4 * cell + ink] - 1e-9 &&
              value <= index.corners[4 * cell + ink] + 2 * index.half + 1e-9,
          ),
        );
      expect(holds).toBe(true);
    }
    expect(index.around(50, 120, 0)).toEqual([]);
    expect(index.around(50, 500, 0)).toEqual([]);
  });

  it('are those within the limits', () => {
    const grid = foldedDevice(1, 0);
    const { corners } = new CellIndex(grid, { ...SEPARATION, totalInk: 1.5, inkLimits: [1, 1, 1, 0.5] });
    for (let i = 0; i < corners.length; i += 4) {
      expect(corners[i] + corners[i + 1] + corners[i + 2] + corners[i + 3]).toBeLessThanOrEqual(1.5 + 1e-9);
      expect(corners[i + 3]).toBeLessThanOrEqual(0.5 + 1e-9);
    }
    expect(corners.length).toBeGreaterThan(0);
  });

  it('are found once for a table and its limits', () => {
    const grid = foldedDevice(1, 0);
    const index = cellIndexOf(grid, SEPARATION);
    expect(cellIndexOf(grid, SEPARATION)).toBe(index);
    expect(cellIndexOf(grid, separationOf('medium', 2))).not.toBe(index);
  });
});
