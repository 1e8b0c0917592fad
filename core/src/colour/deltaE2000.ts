import type { Lab } from './lab.ts';

const POW_25_7 = 25 ** 7;
const DEG = Math.PI / 180;

function hueDegrees(b: number, a: number): number {
  if (a === 0 && b === 0) return 0;
  const h = Math.atan2(b, a) / DEG;
  return h < 0 ? h + 360 : h;
}

/** ΔE00 on bare numbers, for hot loops; see `deltaE2000`. */
export function deltaE2000Of(L1: number, a1: number, b1: number, L2: number, a2: number, b2: number): number {
  const meanC = (Math.hypot(a1, b1) + Math.hypot(a2, b2)) / 2;
  const c7 = meanC ** 7;
  const g = 0.5 * (1 - Math.sqrt(c7 / (c7 + POW_25_7)));
  const a1p = (1 + g) * a1;
  const a2p = (1 + g) * a2;
  const C1 = Math.hypot(a1p, b1);
  const C2 = Math.hypot(a2p, b2);
  const h1 = hueDegrees(b1, a1p);
  const h2 = hueDegrees(b2, a2p);
  const product = C1 * C2;
  let dh = 0;
  if (product !== 0) {
    dh = h2 - h1;
    if (dh > 180) dh -= 360;
    else if (dh < -180) dh += 360;
  }
  const dL = L2 - L1;
  const dC = C2 - C1;
  const dH = 2 * Math.sqrt(product) * Math.sin((dh / 2) * DEG);
  const L = (L1 + L2) / 2;
  const C = (C1 + C2) / 2;
  let h = h1 + h2;
  if (product !== 0) {
    if (Math.abs(h1 - h2) > 180) h += h < 360 ? 360 : -360;
    h /= 2;
  }
  const t =
    1 -
    0.17 * Math.cos((h - 30) * DEG) +
    0.24 * Math.cos(2 * h * DEG) +
    0.32 * Math.cos((3 * h + 6) * DEG) -
    0.2 * Math.cos((4 * h - 63) * DEG);
  const rotation = 30 * Math.exp(-(((h - 275) / 25) ** 2));
  const C7 = C ** 7;
  const rC = 2 * Math.sqrt(C7 / (C7 + POW_25_7));
  const l50 = (L - 50) ** 2;
  const sL = 1 + (0.015 * l50) / Math.sqrt(20 + l50);
  const sC = 1 + 0.045 * C;
  const sH = 1 + 0.015 * C * t;
  const rT = -Math.sin(2 * rotation * DEG) * rC;
  const l = dL / sL;
  const c = dC / sC;
  const hh = dH / sH;
  return Math.sqrt(Math.max(0, l * l + c * c + hh * hh + rT * c * hh));
}

/** ΔE00 with kL = kC = kH = 1 (ISO/CIE 11664-6; Sharma, Wu and Dalal 2005). */
export function deltaE2000(a: Lab, b: Lab): number {
  return deltaE2000Of(a[0], a[1], a[2], b[0], b[1], b[2]);
}

/** ΔE00 of matching rows of three. */
export function deltaE2000Rows(a: ArrayLike<number>, b: ArrayLike<number>): Float64Array {
  if (a.length !== b.length) throw new RangeError(`ΔE00 of ${a.length} with ${b.length} values`);
  const out = new Float64Array(a.length / 3);
  for (let i = 0; i < out.length; i++)
    out[i] = deltaE2000Of(a[3 * i], a[3 * i + 1], a[3 * i + 2], b[3 * i], b[3 * i + 1], b[3 * i + 2]);
  return out;
}
