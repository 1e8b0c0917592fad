import type { Lab } from '../colour/lab.ts';
import { scaleBlackPoint } from '../colour/scaleBlackPoint.ts';
import { iptToLab, labToIpt, withinCones } from '../colour/ipt.ts';
import { SRGB_TO_XYZ_D50, srgbDecode } from '../colour/srgb.ts';
import { WHITE_ICC } from '../colour/whitePoints.ts';
import { xyzToLab } from '../colour/xyzToLab.ts';
import { applyMatrix3 } from '../numerics/matrix3.ts';
import type { Vector3 } from '../numerics/matrix3.ts';
import { boundaryRadius, cubeSurface, radialBoundary, smoothBoundary } from './radialBoundary.ts';
import type { RadialBoundary } from './radialBoundary.ts';

/** A smooth, invertible map between the colours of a perceptual connection space and those a device can print. */
export interface GamutMap {
  /** Connection space to device colours, both Lab of the ICC white. */
  toDevice(lab: Lab): Lab;
  /** Inverse of `toDevice`. */
  fromDevice(lab: Lab): Lab;
}

export interface GamutMapOptions {
  /** Black point that the connection space's scale ends at, XYZ with Y = 1. */
  readonly sourceBlack: Vector3;
  /** Black point of the device, media-relative XYZ with Y = 1. */
  readonly deviceBlack: Vector3;
  readonly strength: MapStrength;
}

/** How strongly a map moves colours, by direction from the centre. */
export interface MapStrength {
  /** Share of the device's radius up to which colours keep their place where the source reaches farther. */
  readonly knee: number;
  /** How much of what the device reaches beyond the source is filled, 0 to 1. */
  readonly stretch: number;
  /** How far the source's surface is sent beyond the device's, as a share of its radius. */
  readonly over: number;
}

const CENTRE_INTENSITY = 0.55;
const CENTRE: Vector3 = [CENTRE_INTENSITY, 0, 0];
/** Squared sine of the angle to the grey axis where the map comes to 63 % of its strength. */
const POLE_FADE = 0.1;
const SMOOTHING_PASSES = 2;
/** Points along an edge of a face of sRGB. */
const SOURCE_POINTS = 17;

/**
 * Black point scaling in XYZ, then a map along rays from a mid grey in IPT (where lines of equal hue are straight).
 * Where sRGB reaches farther than the device, colours inside a knee stay and those beyond are drawn together; where the
 * device reaches farther, they are spread towards its boundary.
 * @param device how far the device's surface reaches, see `gamutBoundary`.
 */
export function createGamutMap(
  device: RadialBoundary,
  { sourceBlack, deviceBlack, strength }: GamutMapOptions,
): GamutMap {
  const source = gamutBoundary(
    cubeSurface(SOURCE_POINTS, (rgb) => {
      const xyz = applyMatrix3(SRGB_TO_XYZ_D50, rgb.map(srgbDecode) as unknown as Vector3);
      return scaleBlackPoint(xyzToLab(xyz, WHITE_ICC), [0, 0, 0], deviceBlack);
    }),
  );
  const move = (lab: Lab, inverse: boolean): Lab => {
    const ipt = labToIpt(lab);
    const d: Vector3 = [ipt[0] - CENTRE_INTENSITY, ipt[1], ipt[2]];
    const r = Math.hypot(...d);
    if (r < 1e-9) return lab;
    // Towards black and white both gamuts end in the same points: there the map fades out.
    const chromatic = (d[1] * d[1] + d[2] * d[2]) / (r * r);
    const fade = 1 - Math.exp(-chromatic / POLE_FADE);
    const limit = boundaryRadius(device, ipt) * (1 + fade * strength.over);
    const beyond = boundaryRadius(source, ipt) / limit - 1;
    const outer = limit * (1 + fade * (beyond < 0 ? strength.stretch * beyond : beyond));
    const next = inverse
      ? expandRadius(r, limit, outer, strength.knee)
      : compressRadius(r, limit, outer, strength.knee);
    if (next === r) return lab;
    const scale = next / r;
    return iptToLab([CENTRE_INTENSITY + d[0] * scale, d[1] * scale, d[2] * scale]);
  };
  return {
    toDevice: (lab) => move(withinCones(scaleBlackPoint(lab, sourceBlack, deviceBlack)), false),
    fromDevice: (lab) => scaleBlackPoint(move(lab, true), deviceBlack, sourceBlack),
  };
}

/**
 * How far a surface reaches from a mid grey in IPT, without the creases of its edges.
 * @param surface triangles in which it lies, media-relative Lab; see `deviceSurface`.
 */
export function gamutBoundary(surface: readonly (readonly Lab[])[]): RadialBoundary {
  // Triangles that lie beside each other share their corners.
  const known = new Map<Lab, Vector3>();
  const ipt = (lab: Lab): Vector3 => {
    const found = known.get(lab) ?? labToIpt(lab);
    known.set(lab, found);
    return found;
  };
  const triangles = surface.map((triangle) => triangle.map(ipt));
  return smoothBoundary(radialBoundary(triangles, CENTRE), SMOOTHING_PASSES);
}

/**
 * A radius so that `outer` lands on `limit`, smoothly and monotone. Where `outer` is the farther one: r up to the knee
 * k = knee·limit, above it k + span·x/(1 + c·x) with x = (r − k)/span. Where it is the nearer one, r·(1 + c·r) up to
 * it, and beyond it as far out as r is: colours that the source does not have are not thrown far out of gamut.
 */
export function compressRadius(r: number, limit: number, outer: number, knee: number): number {
  if (outer < limit) {
    const c = spread(limit, outer);
    return r <= outer ? r * (1 + c * r) : limit + (r - outer);
  }
  const start = knee * limit;
  if (r <= start) return r;
  const { span, bend } = shape(limit, outer, start);
  const x = (r - start) / span;
  return start + (span * x) / (1 + bend * x);
}

/** Inverse of `compressRadius`; beyond the reach of the map it goes on linearly. */
export function expandRadius(r: number, limit: number, outer: number, knee: number): number {
  if (outer < limit) {
    const c = spread(limit, outer);
    // The root of c·x² + x − r that tends to r as c tends to nothing.
    return r <= limit ? (2 * r) / (1 + Math.sqrt(1 + 4 * c * r)) : outer + (r - limit);
  }
  const start = knee * limit;
  if (r <= start) return r;
  const { span, bend } = shape(limit, outer, start);
  const y = (r - start) / span;
  const reach = bend > 0 ? 0.98 / bend : Infinity;
  if (y < reach) return start + (span * y) / (1 - bend * y);
  const atReach = (span * reach) / (1 - bend * reach);
  return start + atReach + (span * (y - reach)) / (1 - bend * reach) ** 2;
}

function spread(limit: number, outer: number): number {
  return (limit / outer - 1) / outer;
}

function shape(limit: number, outer: number, start: number): { span: number; bend: number } {
  const span = limit - start;
  const xOuter = (outer - start) / span;
  return { span, bend: (xOuter - 1) / xOuter };
}
