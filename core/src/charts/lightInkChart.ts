import { eightBit, pushPatch } from './namedPatches.ts';
import type { NamedPatches } from './namedPatches.ts';

/** Tints of each ink alone, and of both together. */
const ALONE = [0.04, 0.08, 0.14, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1];
const TOGETHER = [0.15, 0.35, 0.6, 0.8, 1];
const PAPERS = 4;

/** A light ink and its full one, by their places among the channels. */
export type InkPair = readonly [light: number, full: number];

/** Patches that light inks are joined to their full ones by: paper, tints of both alone, and of both over each other. */
export function makeLightInkChart(channels: readonly string[], pairs: readonly InkPair[]): NamedPatches {
  const device: number[] = [];
  const names: string[] = [];
  const add = (values: ReadonlyMap<number, number>, name: string): void =>
    pushPatch(
      device,
      names,
      channels.map((_, channel) => eightBit(values.get(channel) ?? 0)),
      name,
    );
  for (let paper = 0; paper < PAPERS; paper++) add(new Map(), 'paper');
  for (const [light, full] of pairs) {
    for (const ink of [light, full])
      for (const amount of ALONE)
        add(new Map([[ink, amount]]), `${channels[ink]} ${Math.round(100 * amount)}`);
    for (const thin of TOGETHER)
      for (const strong of TOGETHER)
        add(
          new Map([
            [light, thin],
            [full, strong],
          ]),
          `${channels[light]} ${Math.round(100 * thin)} ${channels[full]} ${Math.round(100 * strong)}`,
        );
  }
  return { device: Float64Array.from(device), names };
}
