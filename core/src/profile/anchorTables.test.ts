import { describe, expect, it } from 'vitest';
import { createRandom } from '../numerics/random.ts';
import { separationOf } from '../separate/separation.ts';
import { anchorForward, anchorInverse, inverseAt } from './anchorTables.ts';
import { gridDeviceValues } from './forwardGrid.ts';
import type { ForwardGrid } from './forwardGrid.ts';
import { InkTable } from './inkTable.ts';
import { COLORIMETRIC_AXES } from './labAxis.ts';
import { labGridValues } from './labGrid.ts';
import { setPureBlack } from './pureBlack.ts';
import { cube, moveValue, tetrahedraOfFour, tetrahedron } from './tetrahedron.ts';

const POINTS = 5;
const random = createRandom(17);

/** A device that is bent a little in every ink. */
function bentGrid(): ForwardGrid {
  const device = gridDeviceValues(4, POINTS);
  const lab = new Float64Array((device.length / 4) * 3);
  for (let i = 0; i * 4 < device.length; i++) {
    const [c, m, y, k] = [0, 1, 2, 3].map((ink) => device[4 * i + ink] ** 1.2);
    const light = 1 - 0.8 * k;
    lab.set(
      [
        100 * light * (1 - 0.25 * (c + m + 0.4 * y)),
        60 * light * (m - c),
        60 * light * (y - 0.6 * c - 0.3 * m),
      ],
      3 * i,
    );
  }
  return { channels: 4, points: POINTS, lab };
}

describe('shares of nodes', () => {
  it.each([
    ['tetrahedron', tetrahedron, 4],
    ['cube', cube, 8],
  ] as const)('of a %s sum to one and reproduce a plane', (_, shares, count) => {
    for (let i = 0; i < 50; i++) {
      const at = [random.uniform(), random.uniform(), i === 0 ? 1 : random.uniform()] as const;
      const found = shares(at, POINTS);
      expect(found).toHaveLength(count);
      expect(found.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 12);
      const place = [0, 0, 0];
      for (const { node, share } of found)
        [Math.floor(node / POINTS ** 2), Math.floor(node / POINTS) % POINTS, node % POINTS].forEach(
          (index, axis) => (place[axis] += (share * index) / (POINTS - 1)),
        );
      place.forEach((value, axis) => expect(value).toBeCloseTo(at[axis], 12));
    }
  });

  it('of four inks give what the table gives', () => {
    const grid = bentGrid();
    const table = new InkTable(grid);
    for (let i = 0; i < 50; i++) {
      const at = [random.uniform(), random.uniform(), random.uniform(), random.uniform()];
      table.evaluate(at);
      const mixed = [0, 0, 0];
      for (const { node, share } of tetrahedraOfFour(at, POINTS))
        for (let o = 0; o < 3; o++) mixed[o] += share * grid.lab[3 * node + o];
      mixed.forEach((value, o) => expect(value).toBeCloseTo(table.lab[o], 10));
    }
  });

  it('move a value exactly, with the least change', () => {
    const table = new Float64Array(POINTS ** 3);
    const shares = cube([0.3, 0.62, 0.9], POINTS);
    moveValue(table, 1, shares, [2]);
    expect(shares.reduce((sum, { node, share }) => sum + share * table[node], 0)).toBeCloseTo(2, 12);
    expect(table.filter((value) => value !== 0)).toHaveLength(8);
  });
});

describe('anchors', () => {
  it('move a forward table to what is known at them', () => {
    const device = Float64Array.of(0.3, 0.4, 0.1, 0.05, 0.8, 0.2, 0.6, 0.3);
    const lab = Float64Array.of(60, 5, -8, 35, -20, 12);
    const table = new InkTable(anchorForward(bentGrid(), device, lab));
    for (const i of [0, 1]) {
      table.evaluate(device.subarray(4 * i, 4 * i + 4));
      table.lab.forEach((value, o) => expect(value).toBeCloseTo(lab[3 * i + o], 3));
    }
  });

  it('make an inverse table meet them, under all limits, and leave other nodes alone', () => {
    const grid = bentGrid();
    const separation = { ...separationOf('medium', 2.2), inkLimits: [1, 1, 0.9, 1] as const };
    const points = 9;
    const table = new InkTable(grid);
    // An inverse that is a little wrong everywhere: some grey inks by lightness.
    const nodes = labGridValues(points, COLORIMETRIC_AXES);
    const inverse = new Float64Array((nodes.length / 3) * 4);
    for (let i = 0; i * 3 < nodes.length; i++) {
      const amount = 1 - nodes[3 * i] / 100;
      inverse.set([0.6 * amount, 0.6 * amount, 0.7 * amount, 0.2 * amount], 4 * i);
    }
    const before = inverse.slice();
    table.evaluate([0.4, 0.5, 0.55, 0.1]);
    const target = table.lab.slice();
    anchorInverse(grid, inverse, points, target, separation);
    table.evaluate(inverseAt(inverse, points, target));
    expect(Math.hypot(...table.lab.map((value, o) => value - target[o]))).toBeLessThan(0.2);
    let moved = 0;
    for (let i = 0; i * 4 < inverse.length; i++) {
      const own = inverse.subarray(4 * i, 4 * i + 4);
      if (own.some((value, ink) => value !== before[4 * i + ink])) {
        moved++;
        expect(own.reduce((a, b) => a + b, 0)).toBeLessThanOrEqual(2.2 + 1e-9);
        expect(own[2]).toBeLessThanOrEqual(0.9);
        for (const value of own) expect(value).toBeGreaterThanOrEqual(0);
      }
    }
    expect(moved).toBeLessThanOrEqual(8);
    expect(moved).toBeGreaterThanOrEqual(4);
  });
});

describe('pure black', () => {
  it('gives neutral nodes the black of their lightness and leaves colours alone', () => {
    const grid = bentGrid();
    const nodes = Float64Array.of(0, 0, 0, 50, 0, 0, 50, 3, 0, 100, 0, 0);
    const inks = Float64Array.from({ length: 16 }, () => 0.5);
    setPureBlack(grid, nodes, nodes, inks, 0.9);
    expect([...inks.subarray(0, 4)]).toEqual([0, 0, 0, expect.closeTo(0.9, 6)]);
    const table = new InkTable(grid);
    table.evaluate(inks.subarray(4, 8));
    expect(table.lab[0]).toBeCloseTo(50, 3);
    expect([...inks.subarray(8, 12)]).toEqual([0.5, 0.5, 0.5, 0.5]);
    expect([...inks.subarray(12, 16)]).toEqual([0, 0, 0, 0]);
  });
});
