import { labAt } from '../colour/labAt.ts';
import { measuredLabRows } from '../colour/measuredLabRows.ts';
import type { Vector3 } from '../numerics/matrix3.ts';
import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import { gamutBody } from './gamutBody.ts';
import type { GamutBody } from './gamutBody.ts';

/** A value this near to none or to full counts for it. */
const NEAR = 0.005;
/** The six solids round the hues, as bits of the three channels that make them. */
const ROUND = [1, 3, 2, 6, 4, 5] as const;
const INK_NAMES = ['', 'C', 'M', 'C+M', 'Y', 'C+Y', 'M+Y'];
const LIGHT_NAMES = ['', 'R', 'G', 'R+G', 'B', 'R+B', 'G+B'];

/**
 * The body between the corners of a device: paper, the six solids and overprints (or full lights), and the darkest of its
 * blacks, with straight lines between them in L*a*b*.
 * @param device distinct rows of RGB or CMYK, 0..1. @param xyz their colours, Y = 100 for a perfect reflector.
 */
export function cornerBody(
  name: string,
  device: Float64Array,
  xyz: Float64Array,
  light: boolean,
): Result<GamutBody> {
  const channels = light ? 3 : 4;
  const lab = measuredLabRows(xyz);
  const corners = new Map<number, Vector3>();
  for (let row = 0; row < device.length / channels; row++) {
    const bits = cornerBits(device, row * channels, channels);
    if (bits !== undefined && !corners.has(bits)) corners.set(bits, labAt(lab, row));
  }
  const at = (bits: number): Vector3 | undefined => corners.get(bits);
  const paper = at(light ? 7 : 0);
  // Black of light is no light; of inks whichever of K alone and its overprints, or of all three colours, is darkest.
  const blacks = light ? [at(0)] : [...corners.keys()].filter((bits) => bits >= 7).map(at);
  const black = blacks
    .filter((own) => own !== undefined)
    .reduce<Vector3 | undefined>(
      (least, own) => (least === undefined || own[0] < least[0] ? own : least),
      undefined,
    );
  const names = light ? LIGHT_NAMES : INK_NAMES;
  const missing = [
    ...(paper === undefined ? ['paper'] : []),
    ...ROUND.filter((bits) => at(bits) === undefined).map((bits) => names[bits]),
    ...(black === undefined ? ['black'] : []),
  ];
  const ring = ROUND.map(at).filter((own) => own !== undefined);
  if (paper === undefined || black === undefined || ring.length < ROUND.length)
    return failure({
      code: 'gamut.corners',
      expected: 'paper, the solids, their overprints and a black',
      found: `no ${missing.join(', ')}`,
    });
  return success(gamutBody(name, triangles(paper, ring, black)));
}

/** Bits of the channels that are full where all others are none; undefined between them. */
function cornerBits(device: Float64Array, from: number, channels: number): number | undefined {
  let bits = 0;
  for (let channel = 0; channel < channels; channel++) {
    const value = device[from + channel];
    if (value > 1 - NEAR) bits |= 1 << channel;
    else if (value > NEAR) return undefined;
  }
  return bits;
}

/** Paper to each pair of neighbours round the hues, and each pair to black. */
function triangles(paper: Vector3, ring: readonly Vector3[], black: Vector3): Vector3[][] {
  return ring.flatMap((own, i) => {
    const next = ring[(i + 1) % ring.length];
    return [
      [paper, own, next],
      [black, own, next],
    ];
  });
}
