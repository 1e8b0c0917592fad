import type { Lab } from '../colour/lab.ts';
import type { Vector3 } from '../numerics/matrix3.ts';
import { boundaryRadius, directionOf, radialBoundary } from './radialBoundary.ts';
import type { Directions, RadialBoundary } from './radialBoundary.ts';

/** Every two degrees. */
export const BODY_DIRECTIONS: Directions = { azimuths: 180, elevations: 91 };

/** A gamut as a closed surface: what it is made of, and the ends of its lightness. */
export interface GamutBody {
  readonly name: string;
  readonly triangles: readonly (readonly Vector3[])[];
  /** Largest and least L* of it. */
  readonly lightest: number;
  readonly darkest: number;
}

export function gamutBody(name: string, triangles: readonly (readonly Vector3[])[]): GamutBody {
  let lightest = -Infinity;
  let darkest = Infinity;
  for (const triangle of triangles)
    for (const [l] of triangle) {
      lightest = Math.max(lightest, l);
      darkest = Math.min(darkest, l);
    }
  return { name, triangles, lightest, darkest };
}

/** The grey that bodies are seen from where it lies well inside all of them. */
const USUAL_GREY = 50;
const WELL_INSIDE = 10;

/** L* of a grey that all of some bodies hold, else the middle of what they share; undefined where they share none. */
export function commonGrey(bodies: readonly GamutBody[]): number | undefined {
  const from = Math.max(...bodies.map(({ darkest }) => darkest));
  const to = Math.min(...bodies.map(({ lightest }) => lightest));
  if (from + WELL_INSIDE < USUAL_GREY && USUAL_GREY < to - WELL_INSIDE) return USUAL_GREY;
  return from < to ? (from + to) / 2 : undefined;
}

const seen = new WeakMap<GamutBody, RadialBoundary>();

/**
 * A body as seen from a grey inside it: how far it reaches in each direction. A hollow that no straight line from the
 * grey meets first is filled; printed gamuts have next to none.
 */
export function bodyFrom(body: GamutBody, greyL: number): RadialBoundary {
  const known = seen.get(body);
  if (known?.centre[0] === greyL) return known;
  const boundary = radialBoundary(body.triangles, [greyL, 0, 0], BODY_DIRECTIONS);
  seen.set(body, boundary);
  return boundary;
}

/** Volume in cubic ΔE*ab. */
export function bodyVolume(body: RadialBoundary): number {
  return integrate(body, (radius) => radius ** 3 / 3);
}

/** Volume of what lies in both; they must be seen from the same grey. */
export function sharedVolume(a: RadialBoundary, b: RadialBoundary): number {
  requireSame(a, b);
  return integrate(a, (radius, at) => Math.min(radius, b.radius[at]) ** 3 / 3);
}

/** Hue sectors, by the middle of each in degrees, and bands of lightness that shares are told by. */
export const SHARE_SECTORS: readonly number[] = Array.from({ length: 12 }, (_, i) => 30 * i);
export const SHARE_BANDS: readonly (readonly [number, number])[] = [
  [0, 20],
  [20, 40],
  [40, 60],
  [60, 80],
  [80, 100],
];

/** Volumes of two bodies in one hue sector and band of lightness. */
export interface Share {
  readonly hue: number;
  readonly band: number;
  readonly a: number;
  readonly b: number;
  readonly both: number;
}

/** Volumes by hue sector and lightness band, row-major sector × band. */
export function volumeShares(a: RadialBoundary, b: RadialBoundary): Share[] {
  requireSame(a, b);
  const cells = new Float64Array(SHARE_SECTORS.length * SHARE_BANDS.length * 3);
  const [grey] = a.centre;
  for (let elevation = 0; elevation < a.elevations; elevation++) {
    const solid = solidAngle(a, elevation);
    for (let azimuth = 0; azimuth < a.azimuths; azimuth++) {
      const [up] = directionOf(a, azimuth, elevation);
      const at = elevation * a.azimuths + azimuth;
      const sector = Math.round((azimuth / a.azimuths) * SHARE_SECTORS.length) % SHARE_SECTORS.length;
      const reach = [a.radius[at], b.radius[at], Math.min(a.radius[at], b.radius[at])];
      SHARE_BANDS.forEach(([low, high], band) => {
        const [near, far] = crossing(grey, up, low, high);
        if (!(near < far)) return;
        const cell = (sector * SHARE_BANDS.length + band) * 3;
        reach.forEach((radius, which) => {
          const end = Math.min(radius, far);
          if (end > near) cells[cell + which] += (solid * (end ** 3 - near ** 3)) / 3;
        });
      });
    }
  }
  return SHARE_SECTORS.flatMap((hue, sector) =>
    SHARE_BANDS.map((_, band) => {
      const cell = (sector * SHARE_BANDS.length + band) * 3;
      return { hue, band, a: cells[cell], b: cells[cell + 1], both: cells[cell + 2] };
    }),
  );
}

/** From where to where a ray is between two values of L*. */
function crossing(grey: number, up: number, low: number, high: number): readonly [number, number] {
  if (Math.abs(up) < 1e-12) return grey >= low && grey < high ? [0, Infinity] : [0, 0];
  const ends = [(low - grey) / up, (high - grey) / up].sort((x, y) => x - y);
  return [Math.max(0, ends[0]), ends[1]];
}

/** Largest chroma at a lightness, for each azimuth; 0 where the body has none there. */
export function lightnessSlice(body: RadialBoundary, l: number): Float64Array {
  const [grey] = body.centre;
  return Float64Array.from({ length: body.azimuths }, (_, azimuth) => {
    const hue = (2 * Math.PI * azimuth) / body.azimuths;
    const inside = (chroma: number): boolean => {
      const point: Lab = [l, chroma * Math.cos(hue), chroma * Math.sin(hue)];
      return Math.hypot(l - grey, chroma) <= boundaryRadius(body, point);
    };
    // From outside in: the outermost chroma that prints, to 0.05.
    let chroma = 200;
    while (chroma > 0 && !inside(chroma)) chroma -= 1;
    if (chroma <= 0 && !inside(0)) return 0;
    let [low, high] = [Math.max(0, chroma), Math.max(0, chroma) + 1];
    while (high - low > 0.05) {
      const middle = (low + high) / 2;
      if (inside(middle)) low = middle;
      else high = middle;
    }
    return low;
  });
}

/** L* and chroma along the surface at a hue and its opposite, from black over the hue to white. */
export function hueSlice(body: RadialBoundary, hueDeg: number): readonly (readonly [number, number])[] {
  const hue = (hueDeg * Math.PI) / 180;
  const [grey] = body.centre;
  return Array.from({ length: body.elevations }, (_, elevation) => {
    const [up, side] = directionOf(body, 0, elevation);
    const radius = boundaryRadius(body, [
      grey + up,
      Math.abs(side) * Math.cos(hue),
      Math.abs(side) * Math.sin(hue),
    ]);
    return [grey + radius * up, radius * Math.abs(side)] as const;
  });
}

function integrate(body: RadialBoundary, of: (radius: number, at: number) => number): number {
  let sum = 0;
  for (let elevation = 0; elevation < body.elevations; elevation++) {
    let ring = 0;
    for (let azimuth = 0; azimuth < body.azimuths; azimuth++) {
      const at = elevation * body.azimuths + azimuth;
      ring += of(body.radius[at], at);
    }
    sum += ring * solidAngle(body, elevation);
  }
  return sum;
}

/** Solid angle of one direction: that between the half steps above and below it. */
function solidAngle({ azimuths, elevations }: Directions, elevation: number): number {
  const height = (step: number): number =>
    Math.sin(Math.PI * (Math.min(elevations - 1, Math.max(0, step)) / (elevations - 1) - 0.5));
  return ((2 * Math.PI) / azimuths) * (height(elevation + 0.5) - height(elevation - 0.5));
}

function requireSame(a: RadialBoundary, b: RadialBoundary): void {
  if (a.centre[0] !== b.centre[0] || a.radius.length !== b.radius.length)
    throw new RangeError('two bodies are compared as seen from one grey');
}
