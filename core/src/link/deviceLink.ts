import { deltaEAb } from '../colour/deltaEAb.ts';
import type { Lab } from '../colour/lab.ts';
import type { IccProfile, LutTag } from '../icc/iccTypes.ts';
import { linkProfile } from '../icc/linkProfile.ts';
import { isBlackInk, linkInks } from './linkInks.ts';
import type { LinkInks } from './linkInks.ts';
import { deviceToLab, RENDERING_INTENTS } from '../icc/profileTransform.ts';
import type { RenderingIntent } from '../icc/profileTransform.ts';
import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import { conversion } from '../transform/conversion.ts';
import { transformed } from '../transform/transform.ts';

/** How a link goes from one device to another, and what it leaves as it is. */
export interface LinkChoice {
  readonly intent: RenderingIntent;
  readonly blackPoint: boolean;
  /** Black alone stays black alone. */
  readonly keepBlack: boolean;
  /**
   * Each other ink alone stays alone where the other device has one of its name; tones are those that look as full there.
   */
  readonly keepInks: boolean;
  /** Limit of the sum, 1 = 100 %; what the profile of the other device gives where it is left out. */
  readonly totalInk?: number;
  readonly description: string;
  readonly createdMs: number;
}

/** Points along each ink, by how many inks come in: tables of less than 10 MB. */
const POINTS: Readonly<Record<number, number>> = { 1: 256, 2: 129, 3: 33, 4: 17, 5: 11, 6: 9, 7: 7, 8: 5 };
/** Sum of the other inks, in steps of the table, at which an ink is no longer alone. */
const ALONE_STEPS = 2;
const RAMP = 401;

/** A device link from inks to inks, one to eight on either side: the way through both profiles, but for what is kept. */
export function deviceLink(from: IccProfile, to: IccProfile, choice: LinkChoice): Result<IccProfile> {
  const source = linkInks(from, 'from');
  if (!source.ok) return source;
  const goal = linkInks(to, 'to');
  if (!goal.ok) return goal;
  const outputs = goal.value.count;
  if (choice.totalInk !== undefined && !(choice.totalInk >= 1 && choice.totalInk <= outputs))
    return failure({
      code: 'link.ink',
      path: 'total ink',
      expected: `100 to ${100 * outputs} %`,
      found: `${100 * choice.totalInk} %`,
    });
  const kept = keptInks(source.value, goal.value, choice);
  if (!kept.ok) return kept;
  const way = conversion({ from, to, intent: choice.intent, blackPoint: choice.blackPoint });
  if (!way.ok) return way;
  const grid = gridOf(source.value.count);
  const inks = transformed(way.value, grid.nodes);
  for (const { ink, as } of kept.value) {
    const tones = keptTones(
      { profile: from, ink, of: source.value.count },
      { profile: to, ink: as, of: outputs },
      grid.points,
    );
    if (!tones.ok) return tones;
    keepAlone(grid, inks, { ink, as, outputs, tones: tones.value });
  }
  if (choice.totalInk !== undefined) limitInk(inks, goal.value, choice.totalInk);
  return success(
    linkProfile({
      ...{ from: source.value.space, to: goal.value.space, table: table(grid, inks, outputs) },
      ...{ description: choice.description, createdMs: choice.createdMs },
      // Tables that name the inks of both sides are of version 4.
      version: source.value.space === 'CMYK' && goal.value.space === 'CMYK' ? 2 : 4,
      intent: RENDERING_INTENTS.indexOf(choice.intent),
      colorants: { from: source.value.table, to: goal.value.table },
    }),
  );
}

/** Inks that stay alone, with their places on either side. */
function keptInks(
  source: LinkInks,
  goal: LinkInks,
  { keepBlack, keepInks }: LinkChoice,
): Result<{ readonly ink: number; readonly as: number }[]> {
  if (!keepBlack && !keepInks) return success([]);
  const unnamed = [source, goal].find(({ names }) => names === undefined);
  if (unnamed !== undefined || source.names === undefined || goal.names === undefined)
    return failure({
      code: 'link.names',
      path: 'keep',
      expected: 'profiles that name their inks (colorant table), to know which is which',
      found: `${unnamed?.space ?? ''} without names`,
    });
  const own = goal.names;
  const kept = source.names.flatMap((name, ink) => {
    const as = own.indexOf(name);
    return as >= 0 && (isBlackInk(name) ? keepBlack : keepInks) ? [{ ink, as }] : [];
  });
  if (keepBlack && !kept.some(({ ink }) => isBlackInk(source.names?.[ink] ?? '')))
    return failure({
      code: 'link.black',
      path: 'keep',
      expected: 'a black ink on both sides',
      found: `${source.names.join(', ')} to ${own.join(', ')}`,
    });
  return success(kept);
}

interface Grid {
  readonly points: number;
  readonly inputs: number;
  /** Row-major node × ink, the last ink fastest. */
  readonly nodes: Float64Array;
}

function gridOf(inputs: number): Grid {
  const points = POINTS[inputs];
  const nodes = new Float64Array(points ** inputs * inputs);
  for (let node = 0; node < points ** inputs; node++)
    for (let ink = inputs - 1, rest = node; ink >= 0; ink--, rest = Math.floor(rest / points))
      nodes[node * inputs + ink] = (rest % points) / (points - 1);
  return { points, inputs, nodes };
}

interface OneInk {
  readonly profile: IccProfile;
  readonly ink: number;
  /** Inks of the profile. */
  readonly of: number;
}

/** Tones of one ink alone on the other device that are as far from its paper, in shares of its solid. */
function keptTones(from: OneInk, to: OneInk, points: number): Result<Float64Array> {
  const [source, own] = [fullness(from), fullness(to)];
  if (!source.ok) return source;
  if (!own.ok) return own;
  return success(
    Float64Array.from({ length: points }, (_, i) => {
      if (i === 0 || i === points - 1) return i === 0 ? 0 : 1;
      const place = (i / (points - 1)) * (RAMP - 1);
      const [low, share] = [Math.floor(place), place % 1];
      const wanted =
        source.value[low] + share * (source.value[Math.min(RAMP - 1, low + 1)] - source.value[low]);
      const next = own.value.findIndex((value) => value >= wanted);
      if (next <= 0) return next < 0 ? 1 : 0;
      const [a, b] = [own.value[next - 1], own.value[next]];
      return (next - 1 + (b > a ? (wanted - a) / (b - a) : 0)) / (RAMP - 1);
    }),
  );
}

/** ΔE*ab from paper along a ramp, in shares of the solid's, made to rise. */
function fullness({ profile, ink, of }: OneInk): Result<Float64Array> {
  const toLab = deviceToLab(profile, 'relative');
  if (!toLab.ok) return toLab;
  const values = new Float64Array(RAMP * of);
  for (let i = 0; i < RAMP; i++) values[i * of + ink] = i / (RAMP - 1);
  const lab = transformed(toLab.value, values);
  const at = (row: number): Lab => [lab[3 * row], lab[3 * row + 1], lab[3 * row + 2]];
  const whole = deltaEAb(at(0), at(RAMP - 1));
  let most = 0;
  return success(
    Float64Array.from({ length: RAMP }, (_, i) => (most = Math.max(most, deltaEAb(at(0), at(i)) / whole))),
  );
}

/** Sets nodes where an ink is alone, and fades to the others where it is nearly so. */
function keepAlone(
  { points, inputs, nodes }: Grid,
  inks: Float64Array,
  {
    ink,
    as,
    outputs,
    tones,
  }: { readonly ink: number; readonly as: number; readonly outputs: number; readonly tones: Float64Array },
): void {
  const alone = ALONE_STEPS / (points - 1);
  for (let node = 0; node * inputs < nodes.length; node++) {
    const at = node * inputs;
    let others = 0;
    for (let other = 0; other < inputs; other++) if (other !== ink) others += nodes[at + other];
    const share = 1 - others / alone;
    if (share <= 0 || nodes[at + ink] === 0) continue;
    const tone = tones[Math.round(nodes[at + ink] * (points - 1))];
    for (let other = 0; other < outputs; other++) {
      const place = node * outputs + other;
      inks[place] = share * (other === as ? tone : 0) + (1 - share) * inks[place];
    }
  }
}

/** Brings the sum to the limit by all inks but black, as far as they go. */
function limitInk(inks: Float64Array, { count, names }: LinkInks, totalInk: number): void {
  const black = names?.findIndex(isBlackInk) ?? -1;
  for (let at = 0; at < inks.length; at += count) {
    let colour = 0;
    for (let ink = 0; ink < count; ink++) if (ink !== black) colour += inks[at + ink];
    const room = Math.max(0, totalInk - (black < 0 ? 0 : inks[at + black]));
    if (colour <= room) continue;
    for (let ink = 0; ink < count; ink++) if (ink !== black) inks[at + ink] *= room / colour;
  }
}

function table({ points, inputs }: Grid, inks: Float64Array, outputs: number): LutTag {
  const straight = Uint16Array.of(0, 65535);
  return {
    type: 'lut16',
    ...{ inputs, outputs, matrix: [1, 0, 0, 0, 1, 0, 0, 0, 1] },
    inputTables: new Array<Uint16Array>(inputs).fill(straight),
    clut: {
      grid: new Array<number>(inputs).fill(points),
      outputs,
      values: Uint16Array.from(inks, (value) => Math.round(65535 * Math.min(1, Math.max(0, value)))),
    },
    outputTables: new Array<Uint16Array>(outputs).fill(straight),
  };
}
