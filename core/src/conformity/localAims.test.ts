import { describe, expect, it } from 'vitest';
import { fitSpaceToXyz, xyzToFitSpace } from '../characterise/fitSpace.ts';
import { createRandom } from '../numerics/random.ts';
import { localAims } from './localAims.ts';

/** The fitted space runs to 116, the functions below to 1. */
const SCALE = 100;

/** A grid of 5 × 5 × 5 × 3 values and their colours by a function of C, M, Y, K in the space that is fitted. */
function grid(colour: (c: number, m: number, y: number, k: number) => readonly [number, number, number]) {
  const device: number[] = [];
  const fit: number[] = [];
  const steps = [0, 0.25, 0.5, 0.75, 1];
  for (const c of steps)
    for (const m of steps)
      for (const y of steps)
        for (const k of [0, 0.5, 1]) {
          device.push(c, m, y, k);
          fit.push(...colour(c, m, y, k).map((value) => SCALE * value));
        }
  const xyz = new Float64Array(fit.length);
  fitSpaceToXyz(Float64Array.from(fit), xyz);
  return { device: Float64Array.from(device), xyz };
}
const fitOf = (xyz: Float64Array): Float64Array => {
  const out = new Float64Array(xyz.length);
  xyzToFitSpace(xyz, out);
  return out.map((value) => value / SCALE);
};
const linear = (c: number, m: number, y: number, k: number): [number, number, number] => [
  0.95 - 0.2 * c - 0.15 * m - 0.05 * y - 0.4 * k,
  0.95 - 0.1 * c - 0.3 * m - 0.05 * y - 0.4 * k,
  0.9 - 0.05 * c - 0.15 * m - 0.35 * y - 0.35 * k,
];
const random = createRandom(9);
const wanted = Float64Array.from({ length: 4 * 60 }, () => random.uniform());

describe('aims from neighbours', () => {
  it('give every known colour back', () => {
    const { device, xyz } = grid((c, m, y, k) => [
      0.9 - 0.3 * c * c - 0.1 * k,
      0.9 - 0.3 * Math.sin(2 * m) - 0.1 * k,
      0.9 - 0.2 * y * c - 0.1 * k,
    ]);
    const back = localAims(device, xyz, device);
    for (let i = 0; i < xyz.length; i++) expect(back[i]).toBeCloseTo(xyz[i], 4);
  });

  it('follow a linear trend exactly between them', () => {
    const { device, xyz } = grid(linear);
    const found = fitOf(localAims(device, xyz, wanted));
    for (let row = 0; row < wanted.length / 4; row++) {
      const [c, m, y, k] = wanted.subarray(4 * row, 4 * row + 4);
      linear(c, m, y, k).forEach((value, axis) => expect(found[3 * row + axis]).toBeCloseTo(value, 5));
    }
  });

  it('come near to a curved one, the nearer the finer it is known', () => {
    const curved = (c: number, m: number, y: number, k: number): [number, number, number] => {
      const [a, b, d] = linear(c, m, y, k);
      return [a + 0.08 * Math.sin(3 * c), b + 0.08 * Math.sin(3 * m + k), d + 0.08 * Math.sin(3 * y)];
    };
    const { device, xyz } = grid(curved);
    const found = fitOf(localAims(device, xyz, wanted));
    let worst = 0;
    for (let row = 0; row < wanted.length / 4; row++) {
      const [c, m, y, k] = wanted.subarray(4 * row, 4 * row + 4);
      curved(c, m, y, k).forEach(
        (value, axis) => (worst = Math.max(worst, Math.abs(found[3 * row + axis] - value))),
      );
    }
    // A trend alone would miss it by most of the 0.08.
    expect(worst).toBeLessThan(0.012);
  });

  it('stand where the known values leave a direction open', () => {
    // No black in the data: the slope along K cannot be known, and is taken as none.
    const { device, xyz } = grid(linear);
    const rows = Array.from({ length: device.length / 4 }, (_, row) => row).filter(
      (row) => device[4 * row + 3] === 0,
    );
    const flat = Float64Array.from(rows.flatMap((row) => [...device.subarray(4 * row, 4 * row + 4)]));
    const colours = Float64Array.from(rows.flatMap((row) => [...xyz.subarray(3 * row, 3 * row + 3)]));
    const found = localAims(flat, colours, Float64Array.from([0.4, 0.4, 0.4, 0.02]));
    for (const value of found) expect(Number.isFinite(value)).toBe(true);
    const [, expected] = linear(0.4, 0.4, 0.4, 0);
    expect(fitOf(found)[1]).toBeCloseTo(expected, 2);
  });

  it('do not depend on the order of what is known', () => {
    const { device, xyz } = grid(linear);
    const count = device.length / 4;
    const back = Array.from({ length: count }, (_, row) => count - 1 - row);
    const turned = {
      device: Float64Array.from(back.flatMap((row) => [...device.subarray(4 * row, 4 * row + 4)])),
      xyz: Float64Array.from(back.flatMap((row) => [...xyz.subarray(3 * row, 3 * row + 3)])),
    };
    const one = localAims(device, xyz, wanted);
    const other = localAims(turned.device, turned.xyz, wanted);
    for (let i = 0; i < one.length; i++) expect(other[i]).toBeCloseTo(one[i], 4);
  });
});
