/** Tone up to which a front end prints with the light ink alone, and where that is at its most. */
const BEGINS = 0.3;
const MOST = 0.45;

/**
 * How a front end splits a tone into a light ink and a full one: a table of its maker, not made for any stock.
 * @returns amounts of the light and of the full ink, 0..1.
 */
export function splitTone(tone: number): readonly [light: number, full: number] {
  const t = Math.min(1, Math.max(0, tone));
  const full = t <= BEGINS ? 0 : ((t - BEGINS) / (1 - BEGINS)) ** 1.4;
  const light = t <= MOST ? (0.85 * t) / MOST : 0.85 * (1 - (t - MOST) / (1 - MOST)) ** 1.2;
  return [light, full];
}
