import { createRandom } from '../numerics/random.ts';
import { farthestPoints } from './farthestPoint.ts';
import { eightBit, pushPatch } from './namedPatches.ts';
import type { NamedPatches } from './namedPatches.ts';
import { greyMagentaYellow } from '../balance/greyTriplet.ts';

export const CMYK_CHART_PATCHES = { least: 200, most: 3000 } as const;

/** Coordinates in which the interior is filled: black takes room from the other inks. */
const BLACK_SHADE = 0.72;
/** The chart may go over the total ink limit by this much, so that the limit itself lies inside. */
const OVER_LIMIT = 0.1;
const CANDIDATES = 14;
const SHARE = { paper: 0.015, light: 0.09, grey: 0.05, dark: 0.05, ramp: 0.06, repeat: 0.02 } as const;

/**
 * Device values of a CMYK profiling chart: papers, all overprints, single-ink ramps, light tints, greys and dark greys,
 * a space-filling interior with a share on the faces, and repeats; 8-bit levels.
 * @param patches 200 to 3,000.
 * @param totalInk limit of the sum, 1 = 100 %.
 */
export function makeCmykChart(patches: number, seed: number, totalInk = 4): NamedPatches {
  const { least, most } = CMYK_CHART_PATCHES;
  if (!Number.isInteger(patches) || patches < least || patches > most)
    throw new RangeError(`${patches} patches, expected ${least} to ${most}`);
  const top = totalInk + OVER_LIMIT;
  const device: number[] = [];
  const names: string[] = [];
  const seen = new Set<string>();
  const add = (values: readonly number[], name: string): boolean => {
    const own = values.map(eightBit);
    const key = own.join();
    if (
      names.length >= patches ||
      own.reduce((a, b) => a + b, 0) > top ||
      (seen.has(key) && name !== 'paper')
    )
      return false;
    seen.add(key);
    pushPatch(device, names, own, name);
    return true;
  };
  for (let i = 0; i < Math.max(6, Math.round(SHARE.paper * patches)); i++) add([0, 0, 0, 0], 'paper');
  for (let mask = 1; mask < 16; mask++) {
    const values = [0, 1, 2, 3].map((ink) => (mask >> ink) & 1);
    const total = values.reduce((a, b) => a + b, 0);
    // Overprints beyond the limit are brought down to it, black last.
    const chromatic = total - values[3];
    const factor = total > top && chromatic > 0 ? Math.max(0, (totalInk - values[3]) / chromatic) : 1;
    add(
      values.map((value, ink) => (ink < 3 ? value * factor : value)),
      'overprint',
    );
  }
  const rampSteps = Math.max(4, Math.round((SHARE.ramp * patches) / 4));
  for (let ink = 0; ink < 4; ink++)
    for (let step = 1; step <= rampSteps; step++) {
      const values = [0, 0, 0, 0];
      // Denser towards both ends: lights, and the last per cent before a solid.
      const t = step / (rampSteps + 1);
      values[ink] = 0.5 - 0.5 * Math.cos(Math.PI * t);
      add(values, 'ramp');
    }
  const greys = Math.round(SHARE.grey * patches);
  for (let i = 1; i <= greys; i++) {
    const c = i / (greys + 1);
    const grey = greyMagentaYellow(c);
    add([c, grey, grey, i % 3 === 0 ? 0.25 * c : 0], 'grey');
  }
  const random = createRandom(seed);
  const coordinates = (values: readonly number[]): number[] => [
    ...values.slice(0, 3).map((value) => value * (1 - BLACK_SHADE * values[3])),
    values[3],
  ];
  const fill = (count: number, name: string, draw: () => number[]): void => {
    const drawn = Array.from({ length: Math.max(400, count * CANDIDATES) }, () =>
      draw().map(eightBit),
    ).filter((values) => values.reduce((a, b) => a + b, 0) <= top);
    const rows = Float64Array.from(drawn.flatMap(coordinates));
    const taken = new Float64Array(device.length);
    for (let i = 0; i < names.length; i++) taken.set(coordinates(device.slice(4 * i, 4 * i + 4)), 4 * i);
    let added = 0;
    for (const index of farthestPoints(rows, taken, 4, count * 2)) {
      if (added >= count) break;
      if (add(drawn[index], name)) added++;
    }
  };
  fill(Math.round(SHARE.light * patches), 'light', () => {
    const most = 0.3 * random.uniform() ** 0.7;
    return [0, 1, 2, 3].map((ink) => most * random.uniform() * (ink === 3 ? 0.6 : 1));
  });
  fill(Math.round(SHARE.dark * patches), 'dark grey', () => {
    const c = 0.3 + 0.6 * random.uniform();
    const spread = (): number => 0.14 * (random.uniform() - 0.5);
    const grey = greyMagentaYellow(c);
    return [c + spread(), grey + spread(), grey + spread(), 0.35 + 0.65 * random.uniform()].map((v) =>
      Math.min(1, Math.max(0, v)),
    );
  });
  const repeats = Math.round(SHARE.repeat * patches);
  fill(patches - names.length - repeats, 'interior', () =>
    [0, 1, 2, 3].map((ink) => {
      const snap = random.uniform();
      if (snap < 0.18) return 0;
      if (snap < 0.25) return 1;
      return ink === 3 ? random.uniform() ** 1.3 : random.uniform();
    }),
  );
  for (let i = 0; names.length < patches; i++) {
    const at = Math.floor((i * 7919 + 31) % Math.max(1, names.length));
    pushPatch(device, names, device.slice(4 * at, 4 * at + 4), 'repeat');
  }
  return { device: Float64Array.from(device), names };
}
