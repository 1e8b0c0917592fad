import type { Lab, Lch } from './lab.ts';

export function labToLch(lab: Lab): Lch {
  const hue = (Math.atan2(lab[2], lab[1]) * 180) / Math.PI;
  return [lab[0], Math.hypot(lab[1], lab[2]), hue < 0 ? hue + 360 : hue];
}

export function lchToLab(lch: Lch): Lab {
  const hue = (lch[2] * Math.PI) / 180;
  return [lch[0], lch[1] * Math.cos(hue), lch[1] * Math.sin(hue)];
}
