import { directionOf } from './radialBoundary.ts';
import type { RadialBoundary } from './radialBoundary.ts';

/** A closed surface of triangles. */
export interface BodyMesh {
  /** L*, a*, b* of each corner. */
  readonly lab: Float32Array;
  /** Three corners of each triangle, seen from outside against the clock. */
  readonly corners: Uint32Array;
}

/** The surface of a body; its poles are one corner each, and every edge belongs to two triangles. */
export function bodyMesh(body: RadialBoundary): BodyMesh {
  const { azimuths, elevations, centre, radius } = body;
  const rings = elevations - 2;
  const lab = new Float32Array(3 * (2 + rings * azimuths));
  const put = (corner: number, azimuth: number, elevation: number, reach: number): void => {
    const d = directionOf(body, azimuth, elevation);
    for (let axis = 0; axis < 3; axis++) lab[3 * corner + axis] = centre[axis] + reach * d[axis];
  };
  put(0, 0, 0, radius[0]);
  put(1, 0, elevations - 1, radius[(elevations - 1) * azimuths]);
  const cornerAt = (ring: number, azimuth: number): number => 2 + ring * azimuths + (azimuth % azimuths);
  for (let ring = 0; ring < rings; ring++)
    for (let azimuth = 0; azimuth < azimuths; azimuth++)
      put(cornerAt(ring, azimuth), azimuth, ring + 1, radius[(ring + 1) * azimuths + azimuth]);
  const corners: number[] = [];
  for (let azimuth = 0; azimuth < azimuths; azimuth++) {
    corners.push(0, cornerAt(0, azimuth + 1), cornerAt(0, azimuth));
    for (let ring = 0; ring + 1 < rings; ring++) {
      const [a, b] = [cornerAt(ring, azimuth), cornerAt(ring, azimuth + 1)];
      const [c, d] = [cornerAt(ring + 1, azimuth), cornerAt(ring + 1, azimuth + 1)];
      // Across the fold rather than along it where a ridge runs through: the way that lies farther out.
      if (middleReach(lab, b, c, centre) >= middleReach(lab, a, d, centre)) corners.push(a, b, c, b, d, c);
      else corners.push(a, d, c, a, b, d);
    }
    corners.push(1, cornerAt(rings - 1, azimuth), cornerAt(rings - 1, azimuth + 1));
  }
  return { lab, corners: Uint32Array.from(corners) };
}

/** Distance of the middle of two corners from a point, squared. */
function middleReach(lab: Float32Array, one: number, other: number, from: ArrayLike<number>): number {
  let sum = 0;
  for (let axis = 0; axis < 3; axis++)
    sum += (0.5 * (lab[3 * one + axis] + lab[3 * other + axis]) - from[axis]) ** 2;
  return sum;
}

/** Volume that a mesh encloses, by the divergence theorem; positive where its triangles look outwards. */
export function meshVolume({ lab, corners }: BodyMesh): number {
  let sum = 0;
  for (let t = 0; t < corners.length; t += 3) {
    const [a, b, c] = [corners[t], corners[t + 1], corners[t + 2]].map((i) => lab.subarray(3 * i, 3 * i + 3));
    sum +=
      a[0] * (b[1] * c[2] - b[2] * c[1]) +
      a[1] * (b[2] * c[0] - b[0] * c[2]) +
      a[2] * (b[0] * c[1] - b[1] * c[0]);
  }
  return sum / 6;
}
