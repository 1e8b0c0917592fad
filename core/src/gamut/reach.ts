import { deltaE2000Of } from '../colour/deltaE2000.ts';
import { boundaryRadius, directionOf } from './radialBoundary.ts';
import type { RadialBoundary } from './radialBoundary.ts';

/** Steps over the directions of the surface, from coarse to fine. */
const STRIDES = [8, 4, 2, 1] as const;
const AROUND = [
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
  [1, 1],
  [1, -1],
  [-1, 1],
  [-1, -1],
] as const;

/**
 * How far colours lie beyond a body, ΔE00 to the nearest colour of its surface; 0 for what lies inside.
 * @param lab row-major × 3.
 */
export function reachBeyond(lab: ArrayLike<number>, body: RadialBoundary): Float32Array {
  const surface = surfaceOf(body);
  return Float32Array.from({ length: lab.length / 3 }, (_, i) => {
    const [l, a, b] = [lab[3 * i], lab[3 * i + 1], lab[3 * i + 2]];
    const away = Math.hypot(l - body.centre[0], a, b);
    return away <= boundaryRadius(body, [l, a, b]) + 1e-3 ? 0 : nearest(body, surface, l, a, b);
  });
}

/** Lab of the surface in each direction, row-major elevation × azimuth × 3. */
function surfaceOf(body: RadialBoundary): Float64Array {
  const { azimuths, elevations, centre, radius } = body;
  const out = new Float64Array(radius.length * 3);
  for (let elevation = 0; elevation < elevations; elevation++)
    for (let azimuth = 0; azimuth < azimuths; azimuth++) {
      const at = elevation * azimuths + azimuth;
      const d = directionOf(body, azimuth, elevation);
      for (let axis = 0; axis < 3; axis++) out[3 * at + axis] = centre[axis] + radius[at] * d[axis];
    }
  return out;
}

/** Downhill over the surface from the direction of the colour: printed gamuts have one nearest place. */
function nearest(
  { azimuths, elevations, centre }: RadialBoundary,
  surface: Float64Array,
  l: number,
  a: number,
  b: number,
): number {
  const up = Math.atan2(l - centre[0], Math.hypot(a, b)) / Math.PI + 0.5;
  let elevation = Math.round(up * (elevations - 1));
  let azimuth = Math.round((Math.atan2(b, a) / (2 * Math.PI)) * azimuths);
  const distance = (e: number, h: number): number => {
    const at = 3 * (e * azimuths + (((h % azimuths) + azimuths) % azimuths));
    return deltaE2000Of(l, a, b, surface[at], surface[at + 1], surface[at + 2]);
  };
  let least = distance(elevation, azimuth);
  for (const stride of STRIDES)
    for (let moved = true; moved;) {
      moved = false;
      for (const [de, dh] of AROUND) {
        const e = elevation + stride * de;
        if (e < 0 || e >= elevations) continue;
        const own = distance(e, azimuth + stride * dh);
        if (own >= least) continue;
        [least, elevation, azimuth, moved] = [own, e, azimuth + stride * dh, true];
      }
    }
  return least;
}
