import type { Vector3 } from '../numerics/matrix3.ts';

/** How finely a boundary is told: directions round its axis, and from pole to pole with both. */
export interface Directions {
  readonly azimuths: number;
  readonly elevations: number;
}

/** Every five degrees. */
const COARSE: Directions = { azimuths: 72, elevations: 37 };

/** The boundary of a solid that is star-shaped around a centre: radius by direction. */
export interface RadialBoundary extends Directions {
  readonly centre: Vector3;
  /** Row-major elevation × azimuth. */
  readonly radius: Float64Array;
}

/** Triangles of the surface of a three-channel device cube whose faces are sampled `points` × `points`. */
export function cubeSurface(points: number, colourAt: (device: Vector3) => Vector3): Vector3[][] {
  const triangles: Vector3[][] = [];
  for (let axis = 0; axis < 3; axis++)
    for (const side of [0, 1]) {
      const grid = Array.from({ length: points }, (_, i) =>
        Array.from({ length: points }, (__, j) => {
          const device: [number, number, number] = [0, 0, 0];
          device[axis] = side;
          device[(axis + 1) % 3] = i / (points - 1);
          device[(axis + 2) % 3] = j / (points - 1);
          return colourAt(device);
        }),
      );
      for (let i = 0; i + 1 < points; i++)
        for (let j = 0; j + 1 < points; j++) {
          triangles.push([grid[i][j], grid[i + 1][j], grid[i][j + 1]]);
          triangles.push([grid[i + 1][j], grid[i + 1][j + 1], grid[i][j + 1]]);
        }
    }
  return triangles;
}

/** Farthest intersection of each direction with the triangles; holes are filled from their neighbours. */
export function radialBoundary(
  triangles: readonly (readonly Vector3[])[],
  centre: Vector3,
  directions: Directions = COARSE,
): RadialBoundary {
  const { azimuths, elevations } = directions;
  const radius = new Float64Array(azimuths * elevations);
  const units = unitVectors(directions);
  const corners = new Float64Array(9);
  for (const triangle of triangles) {
    for (let corner = 0; corner < 3; corner++)
      for (let axis = 0; axis < 3; axis++) corners[3 * corner + axis] = triangle[corner][axis] - centre[axis];
    const { low, high, from, to } = boxOf(directions, corners);
    // No point of a triangle is farther than its farthest corner: most of those within are passed by.
    const farthest = Math.max(reach(corners, 0), reach(corners, 3), reach(corners, 6)) * (1 + 1e-5);
    for (let elevation = low; elevation <= high; elevation++)
      for (let azimuth = from; azimuth <= to; azimuth++) {
        const at = elevation * azimuths + (((azimuth % azimuths) + azimuths) % azimuths);
        if (farthest <= radius[at]) continue;
        const distance = intersect(units, 3 * at, corners);
        if (distance > radius[at]) radius[at] = distance;
      }
  }
  fillHoles(radius, directions);
  return { azimuths, elevations, centre, radius };
}

const reach = (d: Float64Array, at: number): number => Math.hypot(d[at], d[at + 1], d[at + 2]);

function unitVectors(directions: Directions): Float64Array {
  const { azimuths, elevations } = directions;
  const out = new Float64Array(3 * azimuths * elevations);
  for (let elevation = 0; elevation < elevations; elevation++)
    for (let azimuth = 0; azimuth < azimuths; azimuth++)
      out.set(directionOf(directions, azimuth, elevation), 3 * (elevation * azimuths + azimuth));
  return out;
}

/** Radius in the direction of `point` from the centre, bilinear over the table of directions. */
export function boundaryRadius(boundary: RadialBoundary, point: Vector3): number {
  const d: Vector3 = [
    point[0] - boundary.centre[0],
    point[1] - boundary.centre[1],
    point[2] - boundary.centre[2],
  ];
  const { azimuths, elevations } = boundary;
  const chroma = Math.hypot(d[1], d[2]);
  const elevation = (Math.atan2(d[0], chroma) / Math.PI + 0.5) * (elevations - 1);
  const azimuth = ((Math.atan2(d[2], d[1]) / (2 * Math.PI) + 1) % 1) * azimuths;
  const e = Math.min(Math.floor(elevation), elevations - 2);
  const a = Math.floor(azimuth) % azimuths;
  const fe = elevation - e;
  const fa = azimuth - Math.floor(azimuth);
  const at = (row: number, column: number): number => boundary.radius[row * azimuths + (column % azimuths)];
  return (
    (1 - fe) * ((1 - fa) * at(e, a) + fa * at(e, a + 1)) +
    fe * ((1 - fa) * at(e + 1, a) + fa * at(e + 1, a + 1))
  );
}

/** A boundary smoothed by a binomial kernel over directions, so that maps made from it have no creases. */
export function smoothBoundary(boundary: RadialBoundary, passes: number): RadialBoundary {
  const { azimuths, elevations, centre } = boundary;
  let radius = boundary.radius;
  for (let pass = 0; pass < passes; pass++) {
    const next = new Float64Array(radius.length);
    for (let e = 0; e < elevations; e++)
      for (let a = 0; a < azimuths; a++) {
        let sum = 0;
        let weight = 0;
        for (let de = -1; de <= 1; de++)
          for (let da = -1; da <= 1; da++) {
            if (e + de < 0 || e + de >= elevations) continue;
            const w = (2 - Math.abs(de)) * (2 - Math.abs(da));
            sum += w * radius[(e + de) * azimuths + ((a + da + azimuths) % azimuths)];
            weight += w;
          }
        next[e * azimuths + a] = sum / weight;
      }
    radius = next;
  }
  return { azimuths, elevations, centre, radius };
}

/** Unit vector of a direction: elevation 0 is straight down the first axis, the last one straight up. */
export function directionOf(
  { azimuths, elevations }: Directions,
  azimuth: number,
  elevation: number,
): Vector3 {
  const h = (2 * Math.PI * azimuth) / azimuths;
  const v = Math.PI * (elevation / (elevations - 1) - 0.5);
  return [Math.sin(v), Math.cos(v) * Math.cos(h), Math.cos(v) * Math.sin(h)];
}

interface Box {
  readonly low: number;
  readonly high: number;
  readonly from: number;
  readonly to: number;
}

/** Beyond this turn round the axis an edge bulges towards the pole by more than a step. */
const WIDE = 0.5;

/**
 * Steps of elevation and azimuth that a triangle may be met in. One that the axis goes through is met in all azimuths;
 * any other spans less than half a turn, to either side of its first corner.
 */
function boxOf({ azimuths, elevations }: Directions, d: Float64Array): Box {
  let lowest = Infinity;
  let highest = -Infinity;
  let least = 0;
  let most = 0;
  const first = Math.atan2(d[2], d[1]);
  for (let at = 0; at < 9; at += 3) {
    const height = (Math.atan2(d[at], Math.hypot(d[at + 1], d[at + 2])) / Math.PI + 0.5) * (elevations - 1);
    lowest = Math.min(lowest, height);
    highest = Math.max(highest, height);
    let turn = Math.atan2(d[at + 2], d[at + 1]) - first;
    if (turn > Math.PI) turn -= 2 * Math.PI;
    if (turn < -Math.PI) turn += 2 * Math.PI;
    least = Math.min(least, turn);
    most = Math.max(most, turn);
  }
  const round = holdsAxis(d);
  const wide = round || most - least > WIDE;
  const low = wide && lowest < (elevations - 1) / 2 ? 0 : Math.max(0, Math.floor(lowest) - 1);
  const high =
    wide && highest > (elevations - 1) / 2
      ? elevations - 1
      : Math.min(elevations - 1, Math.ceil(highest) + 1);
  // In the poles all azimuths are one direction.
  if (round || most - least > 0.9 * Math.PI || low === 0 || high === elevations - 1)
    return { low, high, from: 0, to: azimuths - 1 };
  const scale = azimuths / (2 * Math.PI);
  return {
    ...{ low, high },
    from: Math.floor((first + least) * scale) - 1,
    to: Math.ceil((first + most) * scale) + 1,
  };
}

/** Whether the first axis goes through a triangle, by the signs of the areas that its edges span with it. */
function holdsAxis(d: Float64Array): boolean {
  const side = (i: number, j: number): number => d[i + 1] * d[j + 2] - d[i + 2] * d[j + 1];
  const [ab, bc, ca] = [side(0, 3), side(3, 6), side(6, 0)];
  return (ab >= 0 && bc >= 0 && ca >= 0) || (ab <= 0 && bc <= 0 && ca <= 0);
}

/** Distance along a unit vector from the origin to a triangle, or 0 (Möller and Trumbore 1997). */
function intersect(units: Float64Array, at: number, c: Float64Array): number {
  const d0 = units[at];
  const d1 = units[at + 1];
  const d2 = units[at + 2];
  const u0 = c[3] - c[0];
  const u1 = c[4] - c[1];
  const u2 = c[5] - c[2];
  const v0 = c[6] - c[0];
  const v1 = c[7] - c[1];
  const v2 = c[8] - c[2];
  const p0 = d1 * v2 - d2 * v1;
  const p1 = d2 * v0 - d0 * v2;
  const p2 = d0 * v1 - d1 * v0;
  const determinant = u0 * p0 + u1 * p1 + u2 * p2;
  if (Math.abs(determinant) < 1e-14) return 0;
  const u = -(c[0] * p0 + c[1] * p1 + c[2] * p2) / determinant;
  if (u < -1e-6 || u > 1 + 1e-6) return 0;
  const q0 = c[2] * u1 - c[1] * u2;
  const q1 = c[0] * u2 - c[2] * u0;
  const q2 = c[1] * u0 - c[0] * u1;
  const v = (d0 * q0 + d1 * q1 + d2 * q2) / determinant;
  if (v < -1e-6 || u + v > 1 + 1e-6) return 0;
  return Math.max(0, (v0 * q0 + v1 * q1 + v2 * q2) / determinant);
}

function fillHoles(radius: Float64Array, { azimuths }: Directions): void {
  for (let pass = 0; pass < 8 && radius.includes(0); pass++) {
    const before = radius.slice();
    for (let i = 0; i < radius.length; i++) {
      if (before[i] > 0) continue;
      const e = Math.floor(i / azimuths);
      const a = i % azimuths;
      const around = [
        before[e * azimuths + ((a + 1) % azimuths)],
        before[e * azimuths + ((a + azimuths - 1) % azimuths)],
        before[(e + 1) * azimuths + a],
        before[(e - 1) * azimuths + a],
      ].filter((value) => value > 0);
      if (around.length > 0) radius[i] = around.reduce((sum, value) => sum + value, 0) / around.length;
    }
  }
}
