import { hueDegrees } from '../colour/labToLch.ts';
import { smoothStep } from '../numerics/smoothStep.ts';

/** An ink beside cyan, magenta, yellow and black, and the hues at which it takes part. */
export interface ExtraInk {
  /** Its channel. */
  readonly ink: number;
  /** Its own hue, degrees. */
  readonly hueDeg: number;
  /** Channels of the two of the three whose hues are beside its own, the lower hue first. */
  readonly between: readonly [lower: number, upper: number];
  /** Degrees below its own hue where it begins, and where all of it is allowed: at its overprint with its neighbour. */
  readonly below: { readonly begins: number; readonly full: number };
  /** The same above its own hue. */
  readonly above: { readonly begins: number; readonly full: number };
}

/** Which channels of a device of more than four inks are which, and where the others take part. */
export interface ExtraInks {
  /** Channels of cyan, magenta, yellow. */
  readonly base: readonly [cyan: number, magenta: number, yellow: number];
  readonly black: number;
  readonly inks: readonly ExtraInk[];
  /** How far extra inks take the place of overprints, 0 (only where nothing else reaches) to 1 (as far as they can). */
  readonly replace: number;
}

/** C*ab up to which no extra ink is used, and from which all of it may be: greys are made without. */
const GREY_CHROMA = 4;
const FREE_CHROMA = 20;
/** An extra ink this near in hue to one of the three, degrees, is a lighter or other version of it. */
const SAME_HUE = 8;

/** Colours of the solids by channel, and of the overprint of two channels, Lab. */
export interface SolidColours {
  readonly solid: (channel: number) => readonly number[];
  readonly overprint: (one: number, other: number) => readonly number[];
}

/** An extra ink that has the hue of one of the three, so that it has no place between them. */
export interface SameHue {
  readonly ink: number;
  readonly as: number;
}

/**
 * Where extra inks take part, by the hues of solids and overprints: each between the two of cyan, magenta, yellow whose
 * hues are beside its own. Inks of different sectors never print together, which is what a chart and a model rely on.
 */
export function extraInksOf(
  base: readonly [number, number, number],
  black: number,
  channels: number,
  colours: SolidColours,
  replace: number,
): ExtraInks | SameHue {
  const hueOf = (lab: readonly number[]): number => hueDegrees(lab[1], lab[2]);
  const baseHues = base.map((ink) => ({ ink, hue: hueOf(colours.solid(ink)) }));
  const inks: ExtraInk[] = [];
  for (let ink = 0; ink < channels; ink++) {
    if (ink === black || base.includes(ink)) continue;
    const hueDeg = hueOf(colours.solid(ink));
    const apart = baseHues.map((other) => ({
      ...other,
      below: turn(hueDeg - other.hue),
      above: turn(other.hue - hueDeg),
    }));
    const same = apart.find(({ below, above }) => Math.min(below, above) < SAME_HUE);
    if (same !== undefined) return { ink, as: same.ink };
    const lower = apart.reduce((best, other) => (other.below < best.below ? other : best));
    const upper = apart.reduce((best, other) => (other.above < best.above ? other : best));
    const mixed = (other: number): number => hueOf(colours.overprint(ink, other));
    inks.push({
      ink,
      hueDeg,
      between: [lower.ink, upper.ink],
      below: edge(lower.below, turn(hueDeg - mixed(lower.ink))),
      above: edge(upper.above, turn(mixed(upper.ink) - hueDeg)),
    });
  }
  return { base, black, inks, replace };
}

/** Share of the way from a neighbour to the overprint at which all of an ink is allowed. */
const FULL_AT = 0.8;

function edge(begins: number, overprint: number): { readonly begins: number; readonly full: number } {
  // An overprint that does not lie between the two says nothing: half the way then.
  const at = overprint > 0 && overprint < begins ? overprint : begins / 2;
  return { begins, full: begins - FULL_AT * (begins - at) };
}

/** Degrees 0..360 from one hue up to another. */
function turn(degrees: number): number {
  return ((degrees % 360) + 360) % 360;
}

/** The most of an extra ink, 0..1, that a wanted colour may have. */
export function extraShare({ hueDeg, below, above }: ExtraInk, a: number, b: number): number {
  const chroma = Math.hypot(a, b);
  if (chroma <= GREY_CHROMA) return 0;
  let off = turn(hueDegrees(a, b) - hueDeg);
  if (off > 180) off -= 360;
  const side = off < 0 ? below : above;
  const within = (side.begins - Math.abs(off)) / Math.max(1, side.begins - side.full);
  if (within <= 0) return 0;
  return smoothStep(within) * smoothStep((chroma - GREY_CHROMA) / (FREE_CHROMA - GREY_CHROMA));
}

/** Whether two extra inks may print together: they lie between the same two. */
export function mayMix(one: ExtraInk, other: ExtraInk): boolean {
  return one.between[0] === other.between[0] && one.between[1] === other.between[1];
}

/**
 * Sets of channels that may print together: the three and black, with the extra inks of one sector each.
 * @returns channels of each set, rising; the whole set where there are no extra inks.
 */
export function inkFamilies({ base, black, inks }: ExtraInks): number[][] {
  const four = [...base, black];
  const sectors: ExtraInk[][] = [];
  for (const own of inks) {
    const known = sectors.find(([first]) => mayMix(first, own));
    if (known === undefined) sectors.push([own]);
    else known.push(own);
  }
  const families =
    sectors.length === 0 ? [four] : sectors.map((own) => [...four, ...own.map(({ ink }) => ink)]);
  return families.map((family) => family.sort((a, b) => a - b));
}
