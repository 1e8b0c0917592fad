import { WREN } from './data/wren.ts';

export type WrenMode = keyof typeof WREN.modes;

/** Smooth minimum of three values; its corner is rounded over about 0.05. */
function smoothMinimum(a: number, b: number, c: number): number {
  const sharpness = 18;
  const least = Math.min(a, b, c);
  const sum =
    Math.exp(-sharpness * (a - least)) +
    Math.exp(-sharpness * (b - least)) +
    Math.exp(-sharpness * (c - least));
  return least - (Math.log(sum) - Math.log(3)) / sharpness;
}

/**
 * The fixed split of Wren's driver: RGB (0..1) to ink amounts C, M, Y, K with black generation and a total ink
 * limit. White gives no ink.
 */
export function wrenInks(rgb: readonly number[], mode: WrenMode): [number, number, number, number] {
  const [dr, dg, db] = [0, 1, 2].map((i) => 1 - Math.pow(Math.min(1, Math.max(0, rgb[i])), WREN.tone[i]));
  const x = WREN.crossTalk;
  const c0 = clip(x[0] * dr + x[1] * dg * dr + x[2] * db * dr);
  const m0 = clip(x[4] * dg + x[3] * dr * dg + x[5] * db * dg);
  const y0 = clip(x[8] * db + x[7] * dg * db + x[6] * dr * db);
  const grey = Math.max(0, smoothMinimum(c0, m0, y0));
  const { start, exponent, most, replaced } = WREN.black;
  const above = Math.max(0, (grey - start) / (1 - start));
  const k = most * Math.pow(above, exponent);
  const lighter = 1 - replaced * Math.pow(above, 1.3);
  const settings = WREN.modes[mode];
  const inks = [c0 * lighter, m0 * lighter, y0 * lighter, k].map((ink, i) => ink * settings.inkScale[i]);
  const total = inks[0] + inks[1] + inks[2] + inks[3];
  // A soft limit: the chromatic inks give way, black stays.
  const over = total - settings.totalInk + 0.25;
  if (over > 0) {
    const cut = over < 0.5 ? over * over : over - 0.25;
    const chromatic = total - inks[3];
    const factor = chromatic > 0 ? Math.max(0, 1 - cut / chromatic) : 1;
    for (let i = 0; i < 3; i++) inks[i] *= factor;
  }
  return inks.map(clip) as [number, number, number, number];
}

function clip(value: number): number {
  return Math.min(1, Math.max(0, value));
}
