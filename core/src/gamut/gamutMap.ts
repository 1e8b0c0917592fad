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
  /** Share of the device's radius up to which colours keep their place. */
  readonly knee: number;
}

const CENTRE_INTENSITY = 0.55;
/** Squared sine of the angle to the grey axis where the compression has half its strength. */
const POLE_FADE = 0.08;

/**
 * Black point scaling in XYZ, then a soft compression along rays from a mid grey in IPT (where lines of equal hue
 * are straight): colours inside `knee` of the device's boundary stay, those between it and the source's boundary
 * are drawn together. The source boundary is the larger of sRGB and the device in each direction.
 * @param deviceLab media-relative Lab of a device value, three channels.
 */
export function createGamutMap(deviceLab: (device: Vector3) => Lab, options: GamutMapOptions): GamutMap {
  const centre: Vector3 = [CENTRE_INTENSITY, 0, 0];
  const device = smoothBoundary(
    radialBoundary(
      cubeSurface(17, (d) => labToIpt(deviceLab(d))),
      centre,
    ),
    1,
  );
  const source = smoothBoundary(
    radialBoundary(
      cubeSurface(17, (rgb) => {
        const xyz = applyMatrix3(SRGB_TO_XYZ_D50, rgb.map(srgbDecode) as unknown as Vector3);
        return labToIpt(scaleBlackPoint(xyzToLab(xyz, WHITE_ICC), [0, 0, 0], options.deviceBlack));
      }),
      centre,
    ),
    1,
  );
  const { knee, sourceBlack, deviceBlack } = options;
  return {
    toDevice: (lab) =>
      compress(withinCones(scaleBlackPoint(lab, sourceBlack, deviceBlack)), device, source, knee, false),
    fromDevice: (lab) => scaleBlackPoint(compress(lab, device, source, knee, true), deviceBlack, sourceBlack),
  };
}

function compress(
  lab: Lab,
  device: RadialBoundary,
  source: RadialBoundary,
  knee: number,
  inverse: boolean,
): Lab {
  const ipt = labToIpt(lab);
  const d: Vector3 = [ipt[0] - CENTRE_INTENSITY, ipt[1], ipt[2]];
  const radius = Math.hypot(...d);
  if (radius < 1e-9) return lab;
  const limit = boundaryRadius(device, ipt);
  // Towards black and white both gamuts end in the same points: there the map fades out.
  const chromatic = (d[1] * d[1] + d[2] * d[2]) / (radius * radius);
  const fade = chromatic / (chromatic + POLE_FADE);
  const outer = limit * (1 + fade * Math.max(0, boundaryRadius(source, ipt) / limit - 1));
  const next = inverse
    ? expandRadius(radius, limit, outer, knee)
    : compressRadius(radius, limit, outer, knee);
  if (next === radius) return lab;
  const scale = next / radius;
  return iptToLab([CENTRE_INTENSITY + d[0] * scale, d[1] * scale, d[2] * scale]);
}

/**
 * r below the knee k = knee·limit; above it k + span·x/(1 + c·x) with x = (r − k)/span, where c is chosen so that
 * `outer` lands on `limit`: smooth at the knee, monotone beyond.
 */
export function compressRadius(r: number, limit: number, outer: number, knee: number): number {
  const start = knee * limit;
  if (r <= start) return r;
  const { span, bend } = shape(limit, outer, start);
  const x = (r - start) / span;
  return start + (span * x) / (1 + bend * x);
}

/** Inverse of `compressRadius`; beyond the reach of the map it goes on linearly. */
export function expandRadius(r: number, limit: number, outer: number, knee: number): number {
  const start = knee * limit;
  if (r <= start) return r;
  const { span, bend } = shape(limit, outer, start);
  const y = (r - start) / span;
  const reach = bend > 0 ? 0.98 / bend : Infinity;
  if (y < reach) return start + (span * y) / (1 - bend * y);
  const atReach = (span * reach) / (1 - bend * reach);
  return start + atReach + (span * (y - reach)) / (1 - bend * reach) ** 2;
}

function shape(limit: number, outer: number, start: number): { span: number; bend: number } {
  const span = limit - start;
  const xOuter = (outer - start) / span;
  return { span, bend: (xOuter - 1) / xOuter };
}
