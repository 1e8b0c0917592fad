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
  for (const triangle of triangles) {
    const [a, b, c] = triangle.map((p) => [p[0] - centre[0], p[1] - centre[1], p[2] - centre[2]] as const);
    for (const index of directionsNear(directions, a, b, c)) {
      const elevation = Math.floor(index / azimuths);
      const distance = intersect(directionOf(directions, index % azimuths, elevation), a, b, c);
      if (distance > radius[index]) radius[index] = distance;
    }
  }
  fillHoles(radius, directions);
  return { azimuths, elevations, centre, radius };
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

/** Indices of the directions inside the box of directions around a triangle (all azimuths near the poles). */
function* directionsNear(
  { azimuths, elevations }: Directions,
  ...corners: readonly Vector3[]
): Generator<number> {
  const heights = corners.map(
    (d) => (Math.atan2(d[0], Math.hypot(d[1], d[2])) / Math.PI + 0.5) * (elevations - 1),
  );
  const low = Math.max(0, Math.floor(Math.min(...heights)) - 1);
  const high = Math.min(elevations - 1, Math.ceil(Math.max(...heights)) + 1);
  const first = Math.atan2(corners[0][2], corners[0][1]);
  const turns = corners.map((d) => {
    let turn = Math.atan2(d[2], d[1]) - first;
    if (turn > Math.PI) turn -= 2 * Math.PI;
    if (turn < -Math.PI) turn += 2 * Math.PI;
    return turn;
  });
  // Within 15° of a pole a triangle may lie round it.
  const near = Math.round(elevations / 12);
  const wide = Math.max(...turns) - Math.min(...turns) > 1 || high >= elevations - 1 - near || low <= near;
  const scale = azimuths / (2 * Math.PI);
  const from = wide ? 0 : Math.floor((first + Math.min(...turns)) * scale) - 1;
  const to = wide ? azimuths - 1 : Math.ceil((first + Math.max(...turns)) * scale) + 1;
  for (let e = low; e <= high; e++)
    for (let a = from; a <= to; a++) yield e * azimuths + (((a % azimuths) + azimuths) % azimuths);
}

/** Distance along `d` from the origin to the triangle, or 0 (Möller and Trumbore 1997). */
function intersect(d: Vector3, a: Vector3, b: Vector3, c: Vector3): number {
  const e1: Vector3 = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
  const e2: Vector3 = [c[0] - a[0], c[1] - a[1], c[2] - a[2]];
  const p = cross(d, e2);
  const determinant = dot(e1, p);
  if (Math.abs(determinant) < 1e-14) return 0;
  const t: Vector3 = [-a[0], -a[1], -a[2]];
  const u = dot(t, p) / determinant;
  if (u < -1e-6 || u > 1 + 1e-6) return 0;
  const q = cross(t, e1);
  const v = dot(d, q) / determinant;
  if (v < -1e-6 || u + v > 1 + 1e-6) return 0;
  return Math.max(0, dot(e2, q) / determinant);
}

function cross(a: Vector3, b: Vector3): Vector3 {
  return [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
}

function dot(a: Vector3, b: Vector3): number {
  return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
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
