import { describe, expect, it } from 'vitest';
import { deltaE2000 } from '../colour/deltaE2000.ts';
import type { Lab } from '../colour/lab.ts';
import { createRandom } from '../numerics/random.ts';
import { transformed } from '../transform/transform.ts';
import type { Transform } from '../transform/transform.ts';
import { nearestDevice } from './nearestColours.ts';

/** A press that is easy to search: each ink takes of L*, a* and b* by its own curve, black of all. */
const press: Transform = {
  inputs: 4,
  outputs: 3,
  apply(rows, out) {
    for (let i = 0; i * 4 < rows.length; i++) {
      const [c, m, y, k] = [rows[4 * i], rows[4 * i + 1], rows[4 * i + 2], rows[4 * i + 3]].map(
        (v) => v ** 0.9,
      );
      const light = (1 - 0.42 * c) * (1 - 0.5 * m) * (1 - 0.1 * y) * (1 - 0.83 * k);
      const rest = 1 - 0.85 * k;
      out[3 * i] = 95 * light;
      out[3 * i + 1] = rest * (-36 * c + 74 * m - 5 * y);
      out[3 * i + 2] = rest * (-50 * c - 4 * m + 92 * y);
    }
  },
};
const LIMIT = 2.8;
const ink = (device: ArrayLike<number>, at: number): number =>
  device[at] + device[at + 1] + device[at + 2] + device[at + 3];

describe('the device values that come nearest', () => {
  it('meet colours that print, from a start that is far off', () => {
    const random = createRandom(4);
    const device = Float64Array.from({ length: 4 * 40 }, () => 0.65 * random.uniform());
    const lab = transformed(press, device);
    const found = nearestDevice({ toLab: press, mostInk: LIMIT }, lab, new Float64Array(device.length));
    const printed = transformed(press, found);
    for (let i = 0; i < 40; i++)
      expect(deltaE2000(labAt(lab, i), labAt(printed, i)), `colour ${i}`).toBeLessThan(0.05);
  });

  it('are as near as brute force finds, for colours that do not print, within the ink that there may be', () => {
    const wanted = Float64Array.of(
      20,
      60,
      40,
      60,
      -90,
      60,
      5,
      0,
      -50,
      70,
      80,
      -60,
      40,
      100,
      30,
      30,
      -80,
      -20,
    );
    const count = wanted.length / 3;
    const found = nearestDevice({ toLab: press, mostInk: LIMIT }, wanted, new Float64Array(4 * count));
    const printed = transformed(press, found);
    const all = everyTwentieth();
    const colours = transformed(press, all);
    for (let i = 0; i < count; i++) {
      let least = Infinity;
      for (let row = 0; row < all.length / 4; row++)
        least = Math.min(least, deltaE2000(labAt(wanted, i), labAt(colours, row)));
      expect(deltaE2000(labAt(wanted, i), labAt(printed, i)), `colour ${i}`).toBeLessThan(least + 0.05);
      expect(ink(found, 4 * i)).toBeLessThan(LIMIT + 1e-9);
      for (const value of found.subarray(4 * i, 4 * i + 4)) {
        expect(value).toBeGreaterThanOrEqual(0);
        expect(value).toBeLessThanOrEqual(1);
      }
    }
  });

  it('stay as they are where they are met', () => {
    const device = Float64Array.of(0.3, 0.2, 0.1, 0.4);
    const found = nearestDevice({ toLab: press, mostInk: LIMIT }, transformed(press, device), device);
    expect([...found]).toEqual([...device]);
  });

  it('take less ink where a start has too much', () => {
    const all = Float64Array.of(1, 1, 1, 1);
    // Also where it is just what was asked for.
    for (const wanted of [Float64Array.of(0, 0, 0), transformed(press, all)]) {
      const found = nearestDevice({ toLab: press, mostInk: LIMIT }, wanted, all);
      expect(ink(found, 0)).toBeLessThan(LIMIT + 1e-9);
      expect(found[3]).toBeGreaterThan(0.9);
    }
  });
});

const labAt = (lab: Float64Array, row: number): Lab => [lab[3 * row], lab[3 * row + 1], lab[3 * row + 2]];

function everyTwentieth(): Float64Array {
  const rows: number[] = [];
  for (let c = 0; c <= 20; c++)
    for (let m = 0; m <= 20; m++)
      for (let y = 0; y <= 20; y++)
        for (let k = 0; k <= 20; k += 2)
          if (c + m + y + k <= 20 * LIMIT) rows.push(c / 20, m / 20, y / 20, k / 20);
  return Float64Array.from(rows);
}
