import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import { bodyMesh } from './bodyMesh.ts';
import type { BodyMesh } from './bodyMesh.ts';
import { bodyFrom, bodyVolume, commonGrey, sharedVolume, volumeShares } from './gamutBody.ts';
import type { GamutBody, Share } from './gamutBody.ts';
import type { RadialBoundary } from './radialBoundary.ts';
import { reachBeyond } from './reach.ts';

/** One body, and how far it reaches beyond the other. */
export interface ComparedBody {
  readonly name: string;
  readonly boundary: RadialBoundary;
  readonly mesh: BodyMesh;
  /** Cubic ΔE*ab. */
  readonly volume: number;
  /** ΔE00 beyond the other's surface, for each corner of the mesh; 0 inside. */
  readonly beyond: Float32Array;
  /** The corner that is farthest beyond: its Lab and ΔE00; undefined where none is beyond. */
  readonly farthest?: { readonly lab: readonly [number, number, number]; readonly deltaE: number };
  /** Share of its surface's directions over 1, and over 3 ΔE00 beyond the other. */
  readonly over1: number;
  readonly over3: number;
}

export interface BodyComparison {
  /** L* of the grey that both are seen from. */
  readonly grey: number;
  readonly a: ComparedBody;
  readonly b: ComparedBody;
  readonly shared: number;
  readonly shares: readonly Share[];
}

/** Two bodies beside each other, as seen from the grey in the middle of what both hold. */
export function compareBodies(a: GamutBody, b: GamutBody): Result<BodyComparison> {
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
  return success({
    grey,
    a: compared(a.name, first, second),
    b: compared(b.name, second, first),
    shared: sharedVolume(first, second),
    shares: volumeShares(first, second),
  });
}

function compared(name: string, boundary: RadialBoundary, other: RadialBoundary): ComparedBody {
  const mesh = bodyMesh(boundary);
  const beyond = reachBeyond(mesh.lab, other);
  let at = 0;
  let over1 = 0;
  let over3 = 0;
  let weight = 0;
  beyond.forEach((deltaE, i) => {
    if (deltaE > beyond[at]) at = i;
    // Corners lie closer near the poles: each counts by the part of the sphere round it.
    const d = [0, 1, 2].map((axis) => mesh.lab[3 * i + axis] - boundary.centre[axis]);
    const own = Math.hypot(d[1], d[2]) / Math.max(1e-9, Math.hypot(...d));
    weight += own;
    if (deltaE > 1) over1 += own;
    if (deltaE > 3) over3 += own;
  });
  const [l, a, b] = mesh.lab.subarray(3 * at, 3 * at + 3);
  return {
    ...{ name, boundary, mesh, beyond },
    volume: bodyVolume(boundary),
    farthest: beyond[at] > 0 ? { lab: [l, a, b], deltaE: beyond[at] } : undefined,
    over1: over1 / weight,
    over3: over3 / weight,
  };
}
