import { applyMatrix3, invertMatrix3, multiplyMatrix3 } from '../numerics/matrix3.ts';
import type { Matrix3, Vector3 } from '../numerics/matrix3.ts';
import { adaptationMatrix } from './chromaticAdaptation.ts';
import type { Lab } from './lab.ts';
import { WHITE_ICC, WHITE_SRGB } from './whitePoints.ts';
import { labToXyz, xyzToLab } from './xyzToLab.ts';

/** Ebner and Fairchild, IPT (1998): lines of equal hue are straight, blue does not turn purple. D65. */
const XYZ_TO_LMS: Matrix3 = [0.4002, 0.7075, -0.0807, -0.228, 1.15, 0.0612, 0, 0, 0.9184];
const LMS_TO_IPT: Matrix3 = [0.4, 0.4, 0.2, 4.455, -4.851, 0.396, 0.8056, 0.3572, -1.1628];
const EXPONENT = 0.43;

const FROM_D50 = multiplyMatrix3(XYZ_TO_LMS, adaptationMatrix(WHITE_ICC, WHITE_SRGB));
const TO_D50 = invertMatrix3(FROM_D50);
const IPT_TO_LMS = invertMatrix3(LMS_TO_IPT);
/** The published matrices send white to almost equal responses; dividing by them keeps greys exactly neutral. */
const WHITE_LMS = applyMatrix3(FROM_D50, WHITE_ICC);

function signedPower(value: number, exponent: number): number {
  return value < 0 ? -Math.pow(-value, exponent) : Math.pow(value, exponent);
}

/** Lab (ICC white) to IPT: intensity 0..1, P red-green, T yellow-blue. */
export function labToIpt(lab: Lab): Vector3 {
  const lms = applyMatrix3(FROM_D50, labToXyz(lab, WHITE_ICC));
  return applyMatrix3(
    LMS_TO_IPT,
    lms.map((value, i) => signedPower(value / WHITE_LMS[i], EXPONENT)) as unknown as Vector3,
  );
}

/** Inverse of `labToIpt`. */
export function iptToLab(ipt: Vector3): Lab {
  const lms = applyMatrix3(IPT_TO_LMS, ipt).map(
    (value, i) => signedPower(value, 1 / EXPONENT) * WHITE_LMS[i],
  );
  return xyzToLab(applyMatrix3(TO_D50, lms as unknown as Vector3), WHITE_ICC);
}

/** Least response of a cone, as a share of luminance: real colours lie above, what a table's corners hold may not. */
const LEAST_CONE = 0.02;
const HALVINGS = 14;

/**
 * A colour whose cones all respond: as given where they do, else of the chroma at which the first one fades out. Past
 * that, hue in IPT turns quickly and means nothing.
 */
export function withinCones(lab: Lab): Lab {
  if (conesRespond(lab)) return lab;
  let [low, high] = [0, 1];
  for (let step = 0; step < HALVINGS; step++) {
    const middle = (low + high) / 2;
    if (conesRespond([lab[0], middle * lab[1], middle * lab[2]])) low = middle;
    else high = middle;
  }
  return [lab[0], low * lab[1], low * lab[2]];
}

function conesRespond(lab: Lab): boolean {
  const xyz = labToXyz(lab, WHITE_ICC);
  return applyMatrix3(FROM_D50, xyz).every((value, i) => value / WHITE_LMS[i] >= LEAST_CONE * xyz[1]);
}
