import type { Lab } from './lab.ts';
import { labToLch } from './labToLch.ts';

/** ΔE CMC(l:c) (ISO 105-J03); the first colour is the reference. */
export function deltaECmc(reference: Lab, sample: Lab, l = 2, c = 1): number {
  const [L, C, h] = labToLch(reference);
  const dL = L - sample[0];
  const dC = C - Math.hypot(sample[1], sample[2]);
  const dH2 = Math.max(0, (reference[1] - sample[1]) ** 2 + (reference[2] - sample[2]) ** 2 - dC * dC);
  const sL = L < 16 ? 0.511 : (0.040975 * L) / (1 + 0.01765 * L);
  const sC = (0.0638 * C) / (1 + 0.0131 * C) + 0.638;
  const rad = Math.PI / 180;
  const t =
    h >= 164 && h <= 345
      ? 0.56 + Math.abs(0.2 * Math.cos((h + 168) * rad))
      : 0.36 + Math.abs(0.4 * Math.cos((h + 35) * rad));
  const f = Math.sqrt(C ** 4 / (C ** 4 + 1900));
  const sH = sC * (f * t + 1 - f);
  return Math.sqrt((dL / (l * sL)) ** 2 + (dC / (c * sC)) ** 2 + dH2 / (sH * sH));
}
