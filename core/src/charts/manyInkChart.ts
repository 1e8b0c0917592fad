import { greyMagentaYellow } from '../balance/greyTriplet.ts';
import type { Process } from '../device/process.ts';
import { createRandom } from '../numerics/random.ts';
import type { Random } from '../numerics/random.ts';
import { inkFamilies } from '../separate/extraInks.ts';
import { placeInks } from '../separate/placedInks.ts';
import type { PlacedInks } from '../separate/placedInks.ts';
import type { ExtraInks } from '../separate/extraInks.ts';
import { ChartDraft } from './chartDraft.ts';
import { genericLab, isKnownInk } from './expectedColours.ts';
import type { NamedPatches } from './namedPatches.ts';
import { OVER_LIMIT, overprintShare } from './overprintShare.ts';

export const MANY_INK_CHART_PATCHES = { least: 400, most: 3000 } as const;

const SHARE = { paper: 0.012, ramp: 0.11, grey: 0.05, dark: 0.05, four: 0.22, repeat: 0.015 } as const;
/** Shares of an extra sector that are drawn with so many of its inks beside black, and with all of them. */
const FEW_INKS = 0.55;

/**
 * Device values of a profiling chart of more than four inks: papers, ramps of all inks, solids and overprints of what
 * may print together, greys and darks of C, M, Y, K, then each sector of an extra ink filled by itself: what never prints
 * together in a separation is not printed. 8-bit levels.
 * @param channels of the device.
 * @param totalInk limit of the sum, 1 = 100 %.
 */
export function makeManyInkChart(
  patches: number,
  seed: number,
  channels: number,
  extra: ExtraInks,
  totalInk: number,
): NamedPatches {
  const { least, most } = MANY_INK_CHART_PATCHES;
  if (!Number.isInteger(patches) || patches < least || patches > most)
    throw new RangeError(`${patches} patches, expected ${least} to ${most}`);
  const { base, black } = extra;
  const draft = new ChartDraft(patches, totalInk + OVER_LIMIT, black);
  const random = createRandom(seed);
  const families = inkFamilies(extra);
  const of = (values: readonly (readonly [ink: number, value: number])[]): number[] => {
    const all = new Array<number>(channels).fill(0);
    for (const [ink, value] of values) all[ink] = value;
    return all;
  };
  const share = (name: keyof typeof SHARE): number => Math.round(SHARE[name] * patches);
  for (let i = 0; i < Math.max(6, share('paper')); i++) draft.add(of([]), 'paper');
  for (const family of families) addOverprints(draft, family, black, totalInk, of);
  const steps = Math.max(4, Math.round(share('ramp') / channels));
  for (let ink = 0; ink < channels; ink++)
    for (let step = 1; step <= steps; step++)
      draft.add(of([[ink, 0.5 - 0.5 * Math.cos((Math.PI * step) / (steps + 1))]]), 'ramp');
  const greys = share('grey');
  for (let i = 1; i <= greys; i++) {
    const c = i / (greys + 1);
    const grey = greyMagentaYellow(c);
    draft.add(
      of([
        [base[0], c],
        [base[1], grey],
        [base[2], grey],
        [black, i % 3 === 0 ? 0.25 * c : 0],
      ]),
      'grey',
    );
  }
  draft.fill(share('dark'), 'dark grey', () => {
    const c = 0.3 + 0.6 * random.uniform();
    const grey = greyMagentaYellow(c);
    const near = (value: number): number => Math.min(1, Math.max(0, value + 0.14 * (random.uniform() - 0.5)));
    return of([
      [base[0], near(c)],
      [base[1], near(grey)],
      [base[2], near(grey)],
      [black, 0.35 + 0.65 * random.uniform()],
    ]);
  });
  draft.fill(share('four'), 'four inks', () =>
    of([...base, black].map((ink) => [ink, spread(ink === black, random)])),
  );
  const repeats = share('repeat');
  const sectors = families.filter((family) => family.length > 4);
  sectors.forEach((family, i) => {
    const room = Math.round((draft.room - repeats) / (sectors.length - i));
    draft.fill(room, 'sector', () => of(sectorValues(family, extra, random)));
  });
  const once = draft.names.length;
  for (let i = 0; draft.room > 0; i++) draft.repeat((i * 7919 + 31) % once);
  return draft.finish();
}

/** Solids and overprints of a family; those beyond the limit are brought down to it, black last. */
function addOverprints(
  draft: ChartDraft,
  family: readonly number[],
  black: number,
  totalInk: number,
  of: (values: readonly (readonly [number, number])[]) => number[],
): void {
  for (let mask = 1; mask < 1 << family.length; mask++) {
    const full = family.filter((_, i) => (mask >> i) & 1);
    const factor = overprintShare(full.length, full.includes(black) ? 1 : 0, totalInk);
    draft.add(of(full.map((ink) => [ink, ink === black ? 1 : factor])), 'overprint');
  }
}

/** Inks of a sector: its extra ones always, the others as separations mix them, with at most three of many. */
function sectorValues(family: readonly number[], extra: ExtraInks, random: Random): [number, number][] {
  const others = family.filter((ink) => ink === extra.black || extra.base.includes(ink));
  const extras = family.filter((ink) => !others.includes(ink));
  const lead = extras[random.below(extras.length)];
  const few = random.uniform() < FEW_INKS;
  return family.map((ink) => {
    if (ink === lead) return [ink, random.uniform() < 0.2 ? 1 : 0.04 + 0.96 * random.uniform()];
    if (few && random.uniform() < 0.55) return [ink, 0];
    return [ink, spread(ink === extra.black, random)];
  });
}

/** Many at none and some full, fewer in the depths of black. */
function spread(black: boolean, random: Random): number {
  const snap = random.uniform();
  if (snap < 0.18) return 0;
  if (snap < 0.25) return 1;
  return black ? random.uniform() ** 1.5 : random.uniform();
}

/** Where extra inks are expected to take part before anything was read: by the hues that their names stand for. */
export function expectedPlaces(process: Process): PlacedInks {
  const unknown = process.channels.find(({ name }) => !isKnownInk(name));
  if (unknown !== undefined)
    return {
      issue: `the colour of ${unknown.name} is not told by its name, and a chart goes by it: O, R, G, B and V are known beside C, M, Y and K`,
    };
  return placeInks(
    process,
    (full) => {
      const device = new Float64Array(process.channels.length);
      for (const ink of full) device[ink] = 1;
      return genericLab(process, device);
    },
    1,
  );
}

/** The same; throws a RangeError where they have no places. */
export function expectedExtraInks(process: Process): ExtraInks {
  const placed = expectedPlaces(process);
  if ('issue' in placed) throw new RangeError(placed.issue);
  return placed.extra;
}
