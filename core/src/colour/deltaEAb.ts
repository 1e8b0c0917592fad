import type { Lab } from './lab.ts';

/** ΔE*ab, the Euclidean distance in CIELAB (CIE 15, 8.2.1.3). */
export function deltaEAb(a: Lab, b: Lab): number {
  return Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
}

/** ΔH*ab with its sign: positive where `sample` lies anticlockwise of `reference`. */
export function deltaHAb(reference: Lab, sample: Lab): number {
  const cross = reference[1] * sample[2] - reference[2] * sample[1];
  const chromaProduct = Math.hypot(reference[1], reference[2]) * Math.hypot(sample[1], sample[2]);
  const dot = reference[1] * sample[1] + reference[2] * sample[2];
  const size = Math.sqrt(Math.max(0, 2 * (chromaProduct - dot)));
  return cross < 0 ? -size : size;
}

/** ΔC*ab, sample minus reference. */
export function deltaCAb(reference: Lab, sample: Lab): number {
  return Math.hypot(sample[1], sample[2]) - Math.hypot(reference[1], reference[2]);
}

/** ΔCh for greys: the distance in the a*b* plane. */
export function deltaCh(reference: Lab, sample: Lab): number {
  return Math.hypot(sample[1] - reference[1], sample[2] - reference[2]);
}
