/**
 * Tone value increase aims. The shape 4·TVI50·t(1−t)·(1+s(1−2t)) was fitted to published offset characterisations;
 * away from 50 % such an aim is approximate until a table is loaded.
 */
export interface TviAim {
  readonly name: string;
  /** Tone value increase 0..1 at a tone value 0..1. */
  readonly increase: (tone: number) => number;
  /** Only the figure at 50 % is the standard's. */
  readonly approximate: boolean;
}

/** Tone value increase at a tone value, both 0..1. */
export interface TonePoint {
  readonly tone: number;
  readonly increase: number;
}

/** Curves A to E of ISO 12647-2:2013: increase at 50 %. Check against your copy of the standard. */
export const TVI_AT_50 = { A: 0.16, B: 0.19, C: 0.22, D: 0.25, E: 0.28 } as const;
export type TviLetter = keyof typeof TVI_AT_50;

/** @param skew negative where shadows gain more than lights (premium coated C, M, Y: −0.28, K: −0.09). */
export function tviAim(letter: TviLetter, skew = 0): TviAim {
  const at50 = TVI_AT_50[letter];
  return {
    name: letter,
    approximate: true,
    increase: (t) => 4 * at50 * t * (1 - t) * (1 + skew * (1 - 2 * t)),
  };
}

/** An aim of own points, tone value and increase 0..1, joined by lines; zero at 0 and 1. */
export function tviAimOfPoints(points: readonly TonePoint[]): TviAim {
  const knots = [
    { tone: 0, increase: 0 },
    ...points.filter(({ tone }) => tone > 0 && tone < 1),
    { tone: 1, increase: 0 },
  ].sort((a, b) => a.tone - b.tone);
  return {
    name: 'own points',
    approximate: false,
    increase: (t) => {
      const next = knots.findIndex(({ tone }) => tone >= t);
      if (next <= 0) return 0;
      const [a, b] = [knots[next - 1], knots[next]];
      return a.increase + ((t - a.tone) / (b.tone - a.tone)) * (b.increase - a.increase);
    },
  };
}
