import { describe, expect, it } from 'vitest';
import { createRandom } from '../numerics/random.ts';
import { axisNodes, axisRamp } from './axisNodes.ts';
import { gridDeviceValues } from './forwardGrid.ts';
import type { ForwardGrid } from './forwardGrid.ts';
import { InkTable } from './inkTable.ts';
import { ManyInkTable } from './manyInkTable.ts';

function table(channels: number, points: number, nodes?: readonly Float64Array[]): ForwardGrid {
  const random = createRandom(channels);
  const lab = Float64Array.from({ length: 3 * points ** channels }, () => 100 * random.uniform());
  return nodes === undefined ? { channels, points, lab } : { channels, points, lab, nodes };
}

describe('a table of many inks', () => {
  it('is the one of four inks where there are four', () => {
    const grid = table(4, 5);
    const [many, four] = [new ManyInkTable(grid), new InkTable(grid)];
    const random = createRandom(3);
    for (let i = 0; i < 300; i++) {
      const x = [0, 0, 0, 0].map(() => (random.below(6) === 0 ? random.below(2) : random.uniform()));
      many.evaluate(x);
      four.evaluate(x);
      for (let o = 0; o < 3; o++) expect(many.lab[o]).toBeCloseTo(four.lab[o], 9);
      for (let o = 0; o < 12; o++) expect(many.jacobian[o]).toBeCloseTo(four.jacobian[o], 6);
    }
  });

  it('gives its nodes, wherever they lie, and slopes that are those between them', () => {
    const places = [0, 0.1, 0.45, 1].map(Number);
    const grid = table(
      6,
      4,
      Array.from({ length: 6 }, () => Float64Array.from(places)),
    );
    const many = new ManyInkTable(grid);
    const device = gridDeviceValues(6, 4, grid.nodes);
    for (const node of [0, 17, 900, 4095]) {
      many.evaluate(device.subarray(6 * node, 6 * node + 6));
      for (let o = 0; o < 3; o++) expect(many.lab[o]).toBeCloseTo(grid.lab[3 * node + o], 9);
    }
    const x = [0.3, 0.05, 0.7, 0.22, 0.6, 0.9];
    many.evaluate(x);
    const [lab, slopes] = [many.lab.slice(), many.jacobian.slice()];
    for (let c = 0; c < 6; c++) {
      many.evaluate(x.map((value, i) => (i === c ? value + 1e-6 : value)));
      for (let o = 0; o < 3; o++) expect((many.lab[o] - lab[o]) / 1e-6).toBeCloseTo(slopes[6 * o + c], 3);
    }
  });

  it('leaves inks that are out of use out, which changes nothing where they are not printed', () => {
    const grid = table(7, 3);
    const [whole, part] = [new ManyInkTable(grid), new ManyInkTable(grid)];
    part.use((ink) => ink !== 1 && ink !== 3);
    const x = [0.2, 0, 0.4, 0, 0.7, 0, 0.1];
    whole.evaluate(x);
    part.evaluate(x);
    for (let o = 0; o < 3; o++) {
      expect(part.lab[o]).toBeCloseTo(whole.lab[o], 12);
      expect(part.jacobian[7 * o + 2]).toBeCloseTo(whole.jacobian[7 * o + 2], 9);
      expect(part.jacobian[7 * o + 1]).toBe(0);
      expect(whole.jacobian[7 * o + 1]).not.toBe(0);
    }
  });
});

describe('the nodes of an axis', () => {
  it('lie evenly on a straight ramp, and closer where it bends', () => {
    const steps = axisRamp(5, 2, new Float64Array(5)).length / 5;
    const ramp = (l: (t: number) => number): Float64Array =>
      Float64Array.from({ length: 3 * steps }, (_, i) =>
        i % 3 === 0 ? l(Math.floor(i / 3) / (steps - 1)) : 0,
      );
    const straight = axisNodes(5, [ramp((t) => 100 - 60 * t)]);
    straight.forEach((node, i) => expect(node).toBeCloseTo(i / 4, 2));
    const bent = axisNodes(9, [ramp((t) => 100 * Math.exp(-8 * t))]);
    expect([bent[0], bent[8]]).toEqual([0, 1]);
    for (let i = 1; i < 9; i++) expect(bent[i]).toBeGreaterThan(bent[i - 1]);
    expect(bent[4]).toBeLessThan(0.35);
  });
});
