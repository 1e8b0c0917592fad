import type { Lab } from './lab.ts';

/** ΔE94 with the graphic arts weights K1 = 0.045, K2 = 0.015 (CIE 116); the first colour is the reference. */
export function deltaE94(reference: Lab, sample: Lab): number {
  const chroma = Math.hypot(reference[1], reference[2]);
  const dL = reference[0] - sample[0];
  const dC = chroma - Math.hypot(sample[1], sample[2]);
  const da = reference[1] - sample[1];
  const db = reference[2] - sample[2];
  const dH2 = Math.max(0, da * da + db * db - dC * dC);
  return Math.sqrt(dL * dL + (dC / (1 + 0.045 * chroma)) ** 2 + dH2 / (1 + 0.015 * chroma) ** 2);
}
