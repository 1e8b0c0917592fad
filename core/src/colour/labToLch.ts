import type { Lab, Lch } from './lab.ts';

export function labToLch(lab: Lab): Lch {
  return [lab[0], Math.hypot(lab[1], lab[2]), hueDegrees(lab[1], lab[2])];
}

/** Hue angle of a*, b*, degrees 0..360. */
export function hueDegrees(a: number, b: number): number {
  const hue = (Math.atan2(b, a) * 180) / Math.PI;
  return hue < 0 ? hue + 360 : hue;
}

export function lchToLab(lch: Lch): Lab {
  const hue = (lch[2] * Math.PI) / 180;
  return [lch[0], lch[1] * Math.cos(hue), lch[1] * Math.sin(hue)];
}
