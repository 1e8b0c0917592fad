import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import { bodyMesh } from './bodyMesh.ts';
import type { BodyMesh } from './bodyMesh.ts';
import { bodyFrom, bodyVolume, commonGrey, sharedVolume, volumeShares } from './gamutBody.ts';
import type { GamutBody, Share } from './gamutBody.ts';
import type { RadialBoundary } from './radialBoundary.ts';
import { reachBeyond } from './reach.ts';

/** A body as seen from a grey inside it. */
export interface SeenBody {
  readonly name: string;
  readonly boundary: RadialBoundary;
  readonly mesh: BodyMesh;
  /** Cubic ΔE*ab. */
  readonly volume: number;
}

/** Two bodies, seen from the same grey. */
export interface SeenBodies<Body = SeenBody> {
  /** L* of the grey. */
  readonly grey: number;
  readonly a: Body;
  readonly b: Body;
  readonly shared: number;
}

/** One body, and how far it reaches beyond the other. */
export interface ComparedBody extends SeenBody {
  /** ΔE00 beyond the other's surface, for each corner of the mesh; 0 inside. */
  readonly beyond: Float32Array;
  /** The corner that is farthest beyond: its Lab and ΔE00; undefined where none is beyond. */
  readonly farthest?: { readonly lab: readonly [number, number, number]; readonly deltaE: number };
  /** Share of its surface's directions over 1, and over 3 ΔE00 beyond the other. */
  readonly over1: number;
  readonly over3: number;
}

export interface BodyComparison extends SeenBodies<ComparedBody> {
  readonly shares: readonly Share[];
}

/** Two bodies beside each other, as seen from the grey in the middle of what both hold. */
export function seeBodies(a: GamutBody, b: GamutBody): Result<SeenBodies> {
  const grey = commonGrey([a, b]);
  if (grey === undefined)
    return failure({
      code: 'gamut.apart',
      path: b.name,
      expected: `a lightness that ${a.name} has, too`,
      found: `L* ${b.darkest.toFixed(0)} to ${b.lightest.toFixed(0)}`,
    });
  const boundaries = [a, b].map((body) => bodyFrom(body, grey));
  const hollow = boundaries.findIndex(({ radius }) => !radius.every((value) => value > 0));
  if (hollow >= 0)
    return failure({
      code: 'gamut.hollow',
      path: [a, b][hollow].name,
      expected: `a body round the grey of L* ${grey.toFixed(0)}`,
      found: 'none in some directions',
    });
  const [first, second] = boundaries;
  const seen = (name: string, boundary: RadialBoundary): SeenBody => ({
    ...{ name, boundary, mesh: bodyMesh(boundary), volume: bodyVolume(boundary) },
  });
  return success({
    grey,
    a: seen(a.name, first),
    b: seen(b.name, second),
    shared: sharedVolume(first, second),
  });
}

/** How far each of two bodies reaches beyond the other, and where. */
export function compareSeen(bodies: SeenBodies): BodyComparison {
  const { a, b } = bodies;
  return {
    ...bodies,
    a: compared(a, b.boundary),
    b: compared(b, a.boundary),
    shares: volumeShares(a.boundary, b.boundary),
  };
}

/** Two bodies beside each other, and how far each reaches beyond the other. */
export function compareBodies(a: GamutBody, b: GamutBody): Result<BodyComparison> {
  const seen = seeBodies(a, b);
  return seen.ok ? success(compareSeen(seen.value)) : seen;
}

function compared(own: SeenBody, other: RadialBoundary): ComparedBody {
  const { boundary, mesh } = own;
  const beyond = reachBeyond(mesh.lab, other);
  let at = 0;
  let over1 = 0;
  let over3 = 0;
  let weight = 0;
  beyond.forEach((deltaE, i) => {
    if (deltaE > beyond[at]) at = i;
    // Corners lie closer near the poles: each counts by the part of the sphere round it.
    const d = [0, 1, 2].map((axis) => mesh.lab[3 * i + axis] - boundary.centre[axis]);
    const part = Math.hypot(d[1], d[2]) / Math.max(1e-9, Math.hypot(...d));
    weight += part;
    if (deltaE > 1) over1 += part;
    if (deltaE > 3) over3 += part;
  });
  const [l, a, b] = mesh.lab.subarray(3 * at, 3 * at + 3);
  return {
    ...own,
    beyond,
    farthest: beyond[at] > 0 ? { lab: [l, a, b], deltaE: beyond[at] } : undefined,
    over1: over1 / weight,
    over3: over3 / weight,
  };
}
