import { deltaE2000 } from '../colour/deltaE2000.ts';
import { deltaE94 } from '../colour/deltaE94.ts';
import { deltaEAb } from '../colour/deltaEAb.ts';
import { deltaECmc } from '../colour/deltaECmc.ts';
import type { Lab } from '../colour/lab.ts';
import type { Quantity } from './toleranceSet.ts';

/** Quantities that follow from a pair of colours alone. */
export type PairQuantity = Exclude<Quantity, 'ΔTV' | 'wΔL' | 'wΔCh'>;

/** ΔH*ab (CIE 15), with the sign of the change of hue: 2·√(C₁C₂)·sin(Δh/2). */
export function deltaHue(aim: Lab, measured: Lab): number {
  const chroma = Math.hypot(measured[1], measured[2]) - Math.hypot(aim[1], aim[2]);
  const squared = (measured[1] - aim[1]) ** 2 + (measured[2] - aim[2]) ** 2 - chroma ** 2;
  const turn = Math.sign(aim[1] * measured[2] - aim[2] * measured[1]);
  return turn * Math.sqrt(Math.max(0, squared));
}

export function deltaChroma(aim: Lab, measured: Lab): number {
  return Math.hypot(measured[1], measured[2]) - Math.hypot(aim[1], aim[2]);
}

/** Values of the pair quantities; those with a sign keep it. */
export const PAIR_QUANTITIES: Readonly<Record<PairQuantity, (aim: Lab, measured: Lab) => number>> = {
  ΔE00: deltaE2000,
  'ΔE*ab': deltaEAb,
  ΔE94: deltaE94,
  'ΔE CMC(1:1)': (aim, measured) => deltaECmc(aim, measured, 1, 1),
  ΔL: (aim, measured) => measured[0] - aim[0],
  Δa: (aim, measured) => measured[1] - aim[1],
  Δb: (aim, measured) => measured[2] - aim[2],
  ΔC: deltaChroma,
  ΔH: deltaHue,
  ΔCh: (aim, measured) => Math.hypot(measured[1] - aim[1], measured[2] - aim[2]),
};
