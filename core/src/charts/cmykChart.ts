import { greyMagentaYellow } from '../balance/greyTriplet.ts';
import { mergeRepeats } from '../characterise/mergeRepeats.ts';
import { PriorUncertainty } from '../characterise/priorUncertainty.ts';
import { createRandom } from '../numerics/random.ts';
import type { Random } from '../numerics/random.ts';
import { chooseAddedPatches } from './addedPatches.ts';
import { ChartDraft } from './chartDraft.ts';
import { genericPressLab } from './genericPress.ts';
import type { NamedPatches } from './namedPatches.ts';
import { OVER_LIMIT, overprintShare } from './overprintShare.ts';

export const CMYK_CHART_PATCHES = { least: 200, most: 3000 } as const;

const SHARE = {
  paper: 0.015,
  ramp: 0.06,
  grey: 0.05,
  memory: 0.03,
  light: 0.06,
  dark: 0.05,
  spread: 0.2,
  repeat: 0.02,
} as const;
/** Patches chosen one by one for what they tell; beyond, those that lie farthest from all others do as well. */
const TELLING_MOST = 800;
/** Shares are of this many patches at most: what larger charts add is spread evenly. */
const SHARED_MOST = 1500;
const SPREAD_MOST = 200;
/** C, M, Y, K of colours that people know by heart: skin light to dark, leaves, grass, sky, sea, wood. */
const MEMORY_TONES = [
  [0.06, 0.3, 0.34, 0],
  [0.12, 0.42, 0.5, 0.02],
  [0.25, 0.55, 0.68, 0.2],
  [0.7, 0.25, 0.9, 0.15],
  [0.45, 0.15, 0.85, 0.02],
  [0.55, 0.2, 0.03, 0],
  [0.8, 0.45, 0.25, 0.15],
  [0.3, 0.55, 0.75, 0.35],
] as const;
const MEMORY_SPREAD = 0.14;

/**
 * Device values of a CMYK profiling chart: papers, all overprints, single-ink ramps, greys and dark greys, light tints,
 * memory tones, a share spread evenly with many on the faces, repeats; the rest chosen one by one where a reading would
 * lower the expected error of a model most. 8-bit levels.
 * @param patches 200 to 3,000.
 * @param totalInk limit of the sum, 1 = 100 %.
 * @param lab what is known of the device's colours: its earlier profile, else a generic press.
 */
export function makeCmykChart(
  patches: number,
  seed: number,
  totalInk = 4,
  lab: (device: ArrayLike<number>) => ArrayLike<number> = genericPressLab,
  onProgress: (fraction: number) => void = () => {},
): NamedPatches {
  const { least, most } = CMYK_CHART_PATCHES;
  if (!Number.isInteger(patches) || patches < least || patches > most)
    throw new RangeError(`${patches} patches, expected ${least} to ${most}`);
  const draft = new ChartDraft(patches, totalInk + OVER_LIMIT);
  const random = createRandom(seed);
  const share = (name: keyof typeof SHARE): number =>
    Math.round(SHARE[name] * Math.min(patches, SHARED_MOST));
  for (let i = 0; i < Math.max(6, share('paper')); i++) draft.add([0, 0, 0, 0], 'paper');
  addOverprints(draft, totalInk);
  addRamps(draft, Math.max(4, Math.round(share('ramp') / 4)));
  addGreys(draft, share('grey'));
  draft.fill(share('light'), 'light', () => {
    const lightest = 0.3 * random.uniform() ** 0.7;
    return [0, 1, 2, 3].map((ink) => lightest * random.uniform() * (ink === 3 ? 0.6 : 1));
  });
  draft.fill(share('memory'), 'memory', () =>
    MEMORY_TONES[random.below(MEMORY_TONES.length)].map((value) => near(value, MEMORY_SPREAD, random)),
  );
  draft.fill(share('dark'), 'dark grey', () => {
    const c = 0.3 + 0.6 * random.uniform();
    const grey = greyMagentaYellow(c);
    return [...[c, grey, grey].map((value) => near(value, 0.14, random)), 0.35 + 0.65 * random.uniform()];
  });
  draft.fill(Math.min(SPREAD_MOST, share('spread')), 'interior', () => spread(random));
  const repeats = share('repeat');
  addTelling(draft, Math.min(TELLING_MOST, draft.room - repeats), totalInk, lab, random, onProgress);
  if (draft.room > repeats) draft.fill(draft.room - repeats, 'interior', () => spread(random));
  const once = draft.names.length;
  for (let i = 0; draft.room > 0; i++) draft.repeat((i * 7919 + 31) % once);
  return draft.finish();
}

/** All solids and overprints; those beyond the limit are brought down to it, black last. */
export function addOverprints(draft: ChartDraft, totalInk: number): void {
  for (let mask = 1; mask < 16; mask++) {
    const values = [0, 1, 2, 3].map((ink) => (mask >> ink) & 1);
    const total = values.reduce((a, b) => a + b, 0);
    const factor = overprintShare(total, values[3], totalInk);
    draft.add(
      values.map((value, ink) => (ink < 3 ? value * factor : value)),
      'overprint',
    );
  }
}

function addRamps(draft: ChartDraft, steps: number): void {
  for (let ink = 0; ink < 4; ink++)
    for (let step = 1; step <= steps; step++) {
      const values = [0, 0, 0, 0];
      // Denser towards both ends: lights, and the last per cent before a solid.
      values[ink] = 0.5 - 0.5 * Math.cos((Math.PI * step) / (steps + 1));
      draft.add(values, 'ramp');
    }
}

function addGreys(draft: ChartDraft, count: number): void {
  for (let i = 1; i <= count; i++) {
    const c = i / (count + 1);
    const grey = greyMagentaYellow(c);
    draft.add([c, grey, grey, i % 3 === 0 ? 0.25 * c : 0], 'grey');
  }
}

function addTelling(
  draft: ChartDraft,
  count: number,
  totalInk: number,
  lab: (device: ArrayLike<number>) => ArrayLike<number>,
  random: Random,
  onProgress: (fraction: number) => void,
): void {
  if (count <= 0) return;
  const device = Float64Array.from(draft.device);
  const { device: rows, counts } = mergeRepeats(device, 4, new Float64Array((device.length / 4) * 3));
  const prior = new PriorUncertainty(rows, 4, counts, lab);
  for (const values of chooseAddedPatches(prior, 4, count, totalInk, random, [], onProgress))
    draft.add(values, 'telling');
}

function near(value: number, width: number, random: Random): number {
  return Math.min(1, Math.max(0, value + width * (random.uniform() - 0.5)));
}

/** Many on the faces of the device's cube, fewer in the depths of black. */
function spread(random: Random): number[] {
  return [0, 1, 2, 3].map((ink) => {
    const snap = random.uniform();
    if (snap < 0.18) return 0;
    if (snap < 0.25) return 1;
    return ink === 3 ? random.uniform() ** 1.3 : random.uniform();
  });
}
