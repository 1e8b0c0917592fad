import { describe, expect, it } from 'vitest';
import type { Vector3 } from '../numerics/matrix3.ts';
import { boundaryRadius, cubeSurface, radialBoundary, smoothBoundary } from './radialBoundary.ts';

const CENTRE: Vector3 = [0.5, 0, 0];

/** A ball round the centre, as if it were a device: the cube's surface pushed onto a sphere. */
const ball = (radius: number) =>
  cubeSurface(13, ([r, g, b]) => {
    const d = [r - 0.5, g - 0.5, b - 0.5];
    const size = Math.hypot(...d);
    return [CENTRE[0] + (radius * d[0]) / size, (radius * d[1]) / size, (radius * d[2]) / size];
  });

describe('radial boundary', () => {
  it('of a ball has its radius in every direction, poles and seams too', () => {
    const boundary = radialBoundary(ball(0.3), CENTRE);
    for (let azimuth = 0; azimuth < 360; azimuth += 7)
      for (const elevation of [-90, -60, -1, 0, 45, 89, 90]) {
        const h = (azimuth * Math.PI) / 180;
        const v = (elevation * Math.PI) / 180;
        const point: Vector3 = [
          CENTRE[0] + Math.sin(v),
          Math.cos(v) * Math.cos(h),
          Math.cos(v) * Math.sin(h),
        ];
        const radius = boundaryRadius(boundary, point);
        expect(radius).toBeLessThanOrEqual(0.3 + 1e-9);
        expect(radius).toBeGreaterThan(0.29);
      }
  });

  it('has the faces of a device cube whole, none twice', () => {
    const triangles = cubeSurface(3, (device) => device);
    expect(triangles).toHaveLength(6 * 2 * 4);
    const area = triangles.reduce((sum, [a, b, c]) => {
      const [u, v] = [b, c].map((p) => p.map((x, i) => x - a[i]));
      return (
        sum + Math.hypot(u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]) / 2
      );
    }, 0);
    expect(area).toBeCloseTo(6, 12);
    for (const corner of triangles.flat())
      expect(
        corner.every((value) => value >= 0 && value <= 1) &&
          corner.some((value) => value === 0 || value === 1),
      ).toBe(true);
  });

  it('of a cube of few triangles is as far as its faces, in every direction', () => {
    const boundary = radialBoundary(
      cubeSurface(6, ([r, g, b]) => [r, g - 0.5, b - 0.5]),
      CENTRE,
    );
    for (let azimuth = 0; azimuth < 360; azimuth += 11)
      for (let elevation = -85; elevation <= 85; elevation += 10) {
        const [h, v] = [azimuth, elevation].map((degrees) => (degrees * Math.PI) / 180);
        const d = [Math.sin(v), Math.cos(v) * Math.cos(h), Math.cos(v) * Math.sin(h)];
        const exact = 0.5 / Math.max(...d.map(Math.abs));
        const radius = boundaryRadius(boundary, [CENTRE[0] + d[0], d[1], d[2]]);
        expect(Math.abs(radius / exact - 1)).toBeLessThan(0.05);
      }
  });

  it('of a cube reaches its corners and faces', () => {
    const boundary = radialBoundary(
      cubeSurface(9, ([r, g, b]) => [r, g - 0.5, b - 0.5]),
      CENTRE,
    );
    expect(boundaryRadius(boundary, [0.5, 1, 0])).toBeCloseTo(0.5, 3);
    expect(boundaryRadius(boundary, [1, 0, 0])).toBeCloseTo(0.5, 3);
    expect(boundaryRadius(boundary, [0.5, 1, 1])).toBeCloseTo(Math.SQRT1_2, 2);
  });

  it('has no triangle of a cube twice and twelve squares of each step', () => {
    expect(cubeSurface(4, (d) => d)).toHaveLength(6 * 3 * 3 * 2);
  });

  it('is smoothed without a change of a ball and with one of a spike', () => {
    const boundary = radialBoundary(ball(0.3), CENTRE);
    const same = smoothBoundary(boundary, 3);
    same.radius.forEach((value, i) => expect(value).toBeCloseTo(boundary.radius[i], 2));
    const spiked = { ...boundary, radius: boundary.radius.slice() };
    spiked.radius[1000] = 0.6;
    expect(smoothBoundary(spiked, 1).radius[1000]).toBeLessThan(0.4);
    expect(spiked.radius[1000]).toBe(0.6);
  });
});
