import { greyMagentaYellow } from '../balance/greyTriplet.ts';
import { cmykPlaces, withinProcess } from '../device/cmykWithin.ts';
import { CMYK } from '../device/process.ts';
import type { Process } from '../device/process.ts';
import { eightBit, pushPatch } from './namedPatches.ts';
import type { NamedPatches } from './namedPatches.ts';

/** Steps of both scales, per cent: dense in the lights and near the solid. */
export const NEUTRAL_STEPS = [
  2, 4, 6, 8, 10, 15, 20, 25, 30, 35, 40, 45, 50, 55, 60, 65, 70, 75, 80, 85, 90, 95, 98, 100,
] as const;
/** Greys that are printed with small changes of magenta and yellow as well. */
const VARIED = [10, 25, 50, 75, 90] as const;
const CHANGE = 0.05;
const PAPERS = 6;

/**
 * Near-neutral chart: K and CMY scales, greys with small changes, solids and overprints; one copy, 8-bit levels. Inks beside
 * C, M, Y and K stay out of it, but for their solids.
 */
export function makeNearNeutralChart(process: Process = CMYK): NamedPatches {
  const device: number[] = [];
  const names: string[] = [];
  for (let i = 0; i < PAPERS; i++) pushPatch(device, names, [0, 0, 0, 0], 'paper');
  for (const percent of NEUTRAL_STEPS) {
    const tone = eightBit(percent / 100);
    const grey = eightBit(greyMagentaYellow(tone));
    pushPatch(device, names, [0, 0, 0, tone], `K ${percent}`);
    pushPatch(device, names, [tone, grey, grey, 0], `grey ${percent}`);
  }
  for (const percent of VARIED) {
    const tone = eightBit(percent / 100);
    const grey = greyMagentaYellow(tone);
    const change = Math.min(CHANGE, grey * 0.6);
    for (const [dm, dy] of [
      [1, 0],
      [-1, 0],
      [0, 1],
      [0, -1],
      [1, 1],
      [-1, -1],
      [1, -1],
      [-1, 1],
    ])
      pushPatch(
        device,
        names,
        [tone, eightBit(grey + change * dm), eightBit(grey + change * dy), 0],
        `grey ${percent} varied`,
      );
  }
  for (const [name, values] of [
    ['C', [1, 0, 0, 0]],
    ['M', [0, 1, 0, 0]],
    ['Y', [0, 0, 1, 0]],
    ['C+M', [1, 1, 0, 0]],
    ['M+Y', [0, 1, 1, 0]],
    ['C+Y', [1, 0, 1, 0]],
  ] as const)
    pushPatch(device, names, values, name);
  const within = [...withinProcess(process, Float64Array.from(device))];
  const places = cmykPlaces(process);
  process.channels.forEach(({ name }, own) => {
    if (!places.includes(own))
      pushPatch(
        within,
        names,
        process.channels.map((_, channel) => (channel === own ? 1 : 0)),
        name,
      );
  });
  return { device: Float64Array.from(within), names };
}
