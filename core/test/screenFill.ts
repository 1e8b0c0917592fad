import { scaleBlackPoint } from '@melto/core/colour/scaleBlackPoint';
import { SRGB_TO_XYZ_D50, srgbDecode } from '@melto/core/colour/srgb';
import { WHITE_ICC } from '@melto/core/colour/whitePoints';
import { xyzToLab } from '@melto/core/colour/xyzToLab';
import { deviceSurface } from '@melto/core/gamut/deviceSurface';
import { bodyFrom, bodyVolume, gamutBody, sharedVolume } from '@melto/core/gamut/gamutBody';
import { cubeSurface } from '@melto/core/gamut/radialBoundary';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { mostInk } from '@melto/core/icc/mostInk';
import { REFERENCE_MEDIUM_BLACK } from '@melto/core/icc/profileBlack';
import { deviceToLab, labToDevice } from '@melto/core/icc/profileTransform';
import { applyMatrix3 } from '@melto/core/numerics/matrix3';
import type { Vector3 } from '@melto/core/numerics/matrix3';
import { unwrap } from '@melto/core/result';

/** Media-relative Lab on paper of an sRGB colour. */
export type Printed = (rgb: Vector3) => Vector3;

/** What a version 4 profile prints of sRGB in a mapped intent. */
export function printedBy(file: IccProfile, intent: 'perceptual' | 'saturation'): Printed {
  const toInks = unwrap(labToDevice(file, intent));
  const toLab = unwrap(deviceToLab(file, 'relative'));
  const inks = new Float64Array(toInks.outputs);
  const lab = new Float64Array(3);
  return (rgb) => {
    toInks.apply(Float64Array.from(screenLab(rgb)), inks);
    toLab.apply(inks, lab);
    return [lab[0], lab[1], lab[2]];
  };
}

/** What a colour engine hands to a mapped intent: sRGB with its black scaled to that of the perceptual space. */
function screenLab(rgb: Vector3): Vector3 {
  const xyz = applyMatrix3(SRGB_TO_XYZ_D50, rgb.map(srgbDecode) as unknown as Vector3);
  return scaleBlackPoint(xyzToLab(xyz, WHITE_ICC), [0, 0, 0], REFERENCE_MEDIUM_BLACK);
}

/** Share of the volume of all that a profile prints which the sRGB solid fills. */
export function fillOf(file: IccProfile, printed: Printed): number {
  const toLab = unwrap(deviceToLab(file, 'relative'));
  const most = mostInk(unwrap(labToDevice(file, 'relative')));
  const device = bodyFrom(gamutBody('device', deviceSurface(toLab, most)), 50);
  const filled = bodyFrom(gamutBody('sRGB', cubeSurface(33, printed)), 50);
  return sharedVolume(device, filled) / bodyVolume(device);
}
