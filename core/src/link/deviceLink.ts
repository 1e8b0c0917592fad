import { deltaEAb } from '../colour/deltaEAb.ts';
import type { Lab } from '../colour/lab.ts';
import type { IccProfile, LutTag } from '../icc/iccTypes.ts';
import { linkProfile } from '../icc/linkProfile.ts';
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
  /** Each other ink alone stays alone; their tones are those that look as full on the other device. */
  readonly keepInks: boolean;
  /** Limit of the sum, 1 = 100 %; what the profile of the other device gives where it is left out. */
  readonly totalInk?: number;
  readonly description: string;
  readonly createdMs: number;
}

/** Points along each of the four inks. */
const POINTS = 17;
const INKS = 4;
const BLACK = 3;
/** Sum of the other inks at which an ink is no longer alone. */
const ALONE = 2 / (POINTS - 1);
const RAMP = 101;

/** A device link from CMYK to CMYK: the way through both profiles, but for what is kept. */
export function deviceLink(from: IccProfile, to: IccProfile, choice: LinkChoice): Result<IccProfile> {
  for (const [profile, path] of [
    [from, 'from'],
    [to, 'to'],
  ] as const)
    if (profile.header.colourSpace.trim() !== 'CMYK')
      return failure({
        code: 'link.space',
        path,
        expected: 'a profile of CMYK',
        found: profile.header.colourSpace.trim(),
      });
  if (choice.totalInk !== undefined && !(choice.totalInk >= 1 && choice.totalInk <= INKS))
    return failure({
      code: 'link.ink',
      path: 'total ink',
      expected: '100 to 400 %',
      found: `${100 * choice.totalInk} %`,
    });
  const way = conversion({ from, to, intent: choice.intent, blackPoint: choice.blackPoint });
  if (!way.ok) return way;
  const nodes = gridNodes();
  const inks = transformed(way.value, nodes);
  const kept = [choice.keepInks, choice.keepInks, choice.keepInks, choice.keepBlack];
  for (let ink = 0; ink < INKS; ink++) {
    if (!kept[ink]) continue;
    const tones = keptTones(from, to, ink);
    if (!tones.ok) return tones;
    keepAlone(nodes, inks, ink, tones.value);
  }
  if (choice.totalInk !== undefined) limitInk(inks, choice.totalInk);
  return success(
    linkProfile({
      from: 'CMYK',
      to: 'CMYK',
      table: table(inks),
      ...{ description: choice.description, createdMs: choice.createdMs, version: 2 },
      intent: RENDERING_INTENTS.indexOf(choice.intent),
    }),
  );
}

function gridNodes(): Float64Array {
  const out = new Float64Array(POINTS ** INKS * INKS);
  for (let node = 0; node < POINTS ** INKS; node++)
    for (let ink = INKS - 1, rest = node; ink >= 0; ink--, rest = Math.floor(rest / POINTS))
      out[node * INKS + ink] = (rest % POINTS) / (POINTS - 1);
  return out;
}

/** Tones of one ink alone on the other device that are as far from its paper, in shares of its solid. */
function keptTones(from: IccProfile, to: IccProfile, ink: number): Result<Float64Array> {
  const [source, own] = [fullness(from, ink), fullness(to, ink)];
  if (!source.ok) return source;
  if (!own.ok) return own;
  return success(
    Float64Array.from({ length: POINTS }, (_, i) => {
      const wanted = source.value[Math.round((i / (POINTS - 1)) * (RAMP - 1))];
      if (i === 0) return 0;
      if (i === POINTS - 1) return 1;
      const next = own.value.findIndex((value) => value >= wanted);
      if (next <= 0) return next < 0 ? 1 : 0;
      const [a, b] = [own.value[next - 1], own.value[next]];
      return (next - 1 + (b > a ? (wanted - a) / (b - a) : 0)) / (RAMP - 1);
    }),
  );
}

/** ΔE*ab from paper along a ramp, in shares of the solid's, made to rise. */
function fullness(profile: IccProfile, ink: number): Result<Float64Array> {
  const toLab = deviceToLab(profile, 'relative');
  if (!toLab.ok) return toLab;
  const values = new Float64Array(RAMP * INKS);
  for (let i = 0; i < RAMP; i++) values[i * INKS + ink] = i / (RAMP - 1);
  const lab = transformed(toLab.value, values);
  const at = (row: number): Lab => [lab[3 * row], lab[3 * row + 1], lab[3 * row + 2]];
  const whole = deltaEAb(at(0), at(RAMP - 1));
  let most = 0;
  return success(
    Float64Array.from({ length: RAMP }, (_, i) => (most = Math.max(most, deltaEAb(at(0), at(i)) / whole))),
  );
}

/** Sets nodes where an ink is alone, and fades to the others where it is nearly so. */
function keepAlone(nodes: Float64Array, inks: Float64Array, ink: number, tones: Float64Array): void {
  for (let at = 0; at < nodes.length; at += INKS) {
    let others = 0;
    for (let other = 0; other < INKS; other++) if (other !== ink) others += nodes[at + other];
    const share = 1 - others / ALONE;
    if (share <= 0 || nodes[at + ink] === 0) continue;
    const tone = tones[Math.round(nodes[at + ink] * (POINTS - 1))];
    for (let other = 0; other < INKS; other++)
      inks[at + other] = share * (other === ink ? tone : 0) + (1 - share) * inks[at + other];
  }
}

/** Brings the sum to the limit by C, M and Y alone, as far as they go. */
function limitInk(inks: Float64Array, totalInk: number): void {
  for (let at = 0; at < inks.length; at += INKS) {
    const colour = inks[at] + inks[at + 1] + inks[at + 2];
    const room = Math.max(0, totalInk - inks[at + BLACK]);
    if (colour <= room) continue;
    for (let ink = 0; ink < BLACK; ink++) inks[at + ink] *= room / colour;
  }
}

function table(inks: Float64Array): LutTag {
  const straight = Uint16Array.of(0, 65535);
  return {
    type: 'lut16',
    ...{ inputs: INKS, outputs: INKS, matrix: [1, 0, 0, 0, 1, 0, 0, 0, 1] },
    inputTables: new Array<Uint16Array>(INKS).fill(straight),
    clut: {
      grid: new Array<number>(INKS).fill(POINTS),
      outputs: INKS,
      values: Uint16Array.from(inks, (value) => Math.round(65535 * Math.min(1, Math.max(0, value)))),
    },
    outputTables: new Array<Uint16Array>(INKS).fill(straight),
  };
}
