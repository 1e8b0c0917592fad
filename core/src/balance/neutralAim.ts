import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import type { Lab } from '../colour/lab.ts';
import { labFunction } from '../colour/xyzToLab.ts';
import { GREY_SUBSTRATE_SHARE, LEAST_SCALE_DENSITY, NEUTRAL_TONE_FAMILY } from './data/neutralAims.ts';

export type NeutralScale = keyof typeof NEUTRAL_TONE_FAMILY;

/**
 * Neutral density over paper that a scale should have at a tone value 0..1.
 * @param dmax density over paper of the scale's own 100 % patch on the same sheet, −log10(Y/Yn), D50/2°.
 * Monotone for every dmax, exact at both ends, highlights nearly independent of it. Source: docs/decisions/0007.
 */
export function neutralDensityAim(scale: NeutralScale, tone: number, dmax: number): number {
  const { n1, q, c } = NEUTRAL_TONE_FAMILY[scale];
  const t = Math.min(1, Math.max(0, tone));
  if (t === 0) return 0;
  const area = t + t * (1 - t) * (c[0] + c[1] * t + c[2] * t * t);
  const n0 = -Math.log10(1 - area * (1 - 10 ** -n1));
  const x = n0 / n1;
  return n0 * (1 + x ** q * ((n1 / dmax) ** q - 1)) ** (-1 / q);
}

/** L* of a neutral density over a paper of luminance `paperY` (Y = 100 for the perfect reflector). */
export function neutralLightness(density: number, paperY: number): number {
  return 116 * labFunction((paperY * 10 ** -density) / WHITE_D50_MEASURED[1]) - 16;
}

/** Aim of a step of the CMY scale: lightness by its density, a* and b* those of the paper fading with tone. */
export function greyAim(tone: number, dmax: number, paper: Lab, paperY: number): Lab {
  const share = 1 - GREY_SUBSTRATE_SHARE * tone;
  return [neutralLightness(neutralDensityAim('cmy', tone, dmax), paperY), paper[1] * share, paper[2] * share];
}

/** Weight of a step in wΔL* and wΔCh: 1 up to 50 %, falling to 0.25 at 100 %. */
export function neutralWeight(tone: number): number {
  return tone <= 0.5 ? 1 : 1 - 0.75 * ((tone - 0.5) / 0.5);
}

/** How far an aim may be trusted: within the fitted densities, beyond them, or with too little density for a verdict. */
export type AimStanding = 'fitted' | 'extrapolated' | 'none';

export function aimStanding(scale: NeutralScale, dmax: number): AimStanding {
  const [least, most] = NEUTRAL_TONE_FAMILY[scale].fitted;
  if (dmax < LEAST_SCALE_DENSITY) return 'none';
  return dmax >= least && dmax <= most ? 'fitted' : 'extrapolated';
}
