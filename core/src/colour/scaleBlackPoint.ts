import type { Lab } from './lab.ts';
import { WHITE_ICC } from './whitePoints.ts';
import type { Xyz } from './xyz.ts';
import { labToXyz, xyzToLab } from './xyzToLab.ts';

/**
 * Black point compensation (ISO 18619): a linear scaling of XYZ that takes one black to another and keeps white;
 * Lab of the ICC white, blacks with Y = 1.
 */
export function scaleBlackPoint(lab: Lab, from: Xyz, to: Xyz): Lab {
  const xyz = labToXyz(lab, WHITE_ICC);
  const out = xyz.map((value, i) => {
    const white = WHITE_ICC[i];
    const slope = (white - to[i]) / (white - from[i]);
    return white - slope * (white - value);
  });
  return xyzToLab([out[0], out[1], out[2]], WHITE_ICC);
}
