import { describe, expect, it } from 'vitest';
import { FILTER_PAPER, filterDevice } from '../characterise/testing/filterDevice.ts';
import { deltaE2000Of } from '../colour/deltaE2000.ts';
import type { Lab } from '../colour/lab.ts';
import { createRandom } from '../numerics/random.ts';
import { mean } from '../numerics/statistics.ts';
import { inkBounds, separationOf } from '../separate/separation.ts';
import { inverseAt } from './anchorTables.ts';
import { buildForwardGrid } from './forwardGrid.ts';
import { InkTable } from './inkTable.ts';
import { darkestNeutral, invertInks } from './invertInks.ts';
import { COLORIMETRIC_AXES } from './labAxis.ts';
import { labGridValues } from './labGrid.ts';
import { settleInverse } from './settleInverse.ts';

const POINTS = 17;
const SEPARATION = { ...separationOf('medium', 2.8), inkLimits: [1, 1, 0.95, 1] as const };

describe('settling an inverse table', () => {
  const grid = buildForwardGrid(4, 9, (device, out) => out.set(filterDevice(device)), [...FILTER_PAPER]);
  const targets = labGridValues(POINTS, COLORIMETRIC_AXES);
  const before = invertInks(
    grid,
    targets,
    SEPARATION,
    darkestNeutral(grid, SEPARATION),
    () => {},
    POINTS,
  ).device;
  const settled = before.slice();
  settleInverse(grid, settled, POINTS, SEPARATION);

  it('brings colours between the nodes nearer to what was asked for', () => {
    const table = new InkTable(grid);
    const random = createRandom(81);
    const wanted = new Float64Array(3 * 3000);
    for (let i = 0; i < 3000;) {
      const inks = [1, 1, 0.95, 1].map((most) => most * random.uniform());
      if (inks.reduce((a, b) => a + b, 0) > 2.8) continue;
      table.evaluate(inks);
      wanted.set(table.lab, 3 * i++);
    }
    const misses = (inverse: Float64Array): number[] => {
      const inks = inverseAt(inverse, POINTS, wanted);
      return Array.from({ length: 3000 }, (_, i) => {
        table.evaluate(inks.subarray(4 * i, 4 * i + 4));
        return Math.hypot(...table.lab.map((value, axis) => value - wanted[3 * i + axis]));
      });
    };
    expect(mean(misses(settled))).toBeLessThan(0.85 * mean(misses(before)));
  });

  it('leaves neutral nodes as they are and keeps all limits', () => {
    const bounds = inkBounds(SEPARATION);
    let moved = 0;
    for (let node = 0; 4 * node < settled.length; node++) {
      const own = settled.subarray(4 * node, 4 * node + 4);
      const same = own.every((value, ink) => value === before[4 * node + ink]);
      if (targets[3 * node + 1] === 0 && targets[3 * node + 2] === 0) expect(same).toBe(true);
      else if (!same) moved++;
      own.forEach((value, ink) => {
        expect(value).toBeGreaterThanOrEqual(0);
        expect(value).toBeLessThanOrEqual(bounds[ink]);
      });
      expect(own.reduce((a, b) => a + b, 0)).toBeLessThanOrEqual(2.8 + 1e-9);
    }
    expect(moved).toBeGreaterThan(500);
  });

  it('gives up no node that came out by itself', () => {
    const table = new InkTable(grid);
    let met = 0;
    for (let node = 0; 4 * node < settled.length; node++) {
      const asked: Lab = [targets[3 * node], targets[3 * node + 1], targets[3 * node + 2]];
      const miss = (inks: Float64Array): number => {
        table.evaluate(inks.subarray(4 * node, 4 * node + 4));
        return deltaE2000Of(...asked, table.lab[0], table.lab[1], table.lab[2]);
      };
      if (miss(before) > 0.05) continue;
      met++;
      expect(miss(settled)).toBeLessThan(1);
    }
    expect(met).toBeGreaterThan(300);
  });

  it('comes out the same each time', () => {
    const again = before.slice();
    settleInverse(grid, again, POINTS, SEPARATION);
    expect(again).toEqual(settled);
  });
});
