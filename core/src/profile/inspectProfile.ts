import { deltaE2000Of, deltaE2000Rows } from '../colour/deltaE2000.ts';
import type { Lab } from '../colour/lab.ts';
import { channelNames } from '../icc/colorantNames.ts';
import type { IccProfile, IccTag } from '../icc/iccTypes.ts';
import { inkSum, mostInk } from '../icc/mostInk.ts';
import { profileText } from '../icc/profileText.ts';
import { deviceToLab, labToDevice } from '../icc/profileTransform.ts';
import { createRandom } from '../numerics/random.ts';
import { summariseErrors } from '../numerics/statistics.ts';
import type { ErrorSummary } from '../numerics/statistics.ts';
import { transformed } from '../transform/transform.ts';
import { profileFigures } from './profileFigures.ts';
import type { ProfileFigures } from './profileFigures.ts';

/** What a profile is and does, as far as its file tells. */
export interface ProfileInspection {
  readonly name: string;
  readonly copyright: string;
  /** Of the ICC specification, as 2.1 or 4.4. */
  readonly version: string;
  readonly kind: string;
  readonly colourSpace: string;
  readonly connection: string;
  /** What its channels are called, and those that a device link goes to. */
  readonly channels: readonly string[];
  readonly goal?: readonly string[];
  readonly tags: readonly TagFacts[];
  /** Rendering intents with a table of their own, both ways. */
  readonly intents: readonly string[];
  /** White, black, neutral axis and its inks, where it has tables both ways. */
  readonly figures?: ProfileFigures;
  /** Most ink of its table from Lab, 1 = 100 %. */
  readonly mostInk?: number;
  /** ΔE00 of colours that print, from Lab to the device and back, relative colorimetric. */
  readonly roundTrip?: ErrorSummary;
  /** Text of the characterisation data it carries. */
  readonly data?: string;
  /** What is wrong with it, or what others may refuse, in sentences. */
  readonly remarks: readonly string[];
}

export interface TagFacts {
  readonly signature: string;
  readonly type: string;
  readonly says: string;
}

const KINDS: Readonly<Record<string, string>> = {
  prtr: 'output',
  mntr: 'screen or working space',
  scnr: 'input',
  spac: 'colour space',
  link: 'device link',
  abst: 'abstract',
  nmcl: 'named colours',
};
const INTENTS = ['perceptual', 'relative colorimetric', 'saturation'];
const PROBES = 1500;
/** A round trip whose 95 % is beyond this has tables that do not fit each other, ΔE00. */
const LOOSE_TRIP = 2;
const MOST_CAST = 2;
const HEAVY_INK = 3.4;
/** Bare stock is no farther from L* 100 in a table that is relative to it, ΔE00. */
const OFF_WHITE = 1;
/** Fall of L*, or rise of black, along the greys that is none by rounding. */
const REVERSAL = 0.3;
const BLACK_REVERSAL = 0.02;
/** Table and data differ by no more on average, ΔE00. */
const LOOSE_FIT = 1;

export function inspectProfile(profile: IccProfile): ProfileInspection {
  const { header, tags } = profile;
  const found = {
    name: profileText(profile, 'desc') ?? '',
    copyright: profileText(profile, 'cprt') ?? '',
    version: `${header.version.major}.${header.version.minor}`,
    kind: KINDS[header.deviceClass] ?? header.deviceClass,
    colourSpace: header.colourSpace.trim(),
    connection: header.pcs.trim(),
    channels: channelNames(profile),
    goal: header.deviceClass === 'link' ? channelNames(profile, 'to') : undefined,
    tags: [...tags].map(([signature, tag]) => ({ signature, type: tag.type, says: tagWords(tag) })),
    intents: INTENTS.filter((_, i) => tags.has(`A2B${i}`) && tags.has(`B2A${i}`)),
    figures: profileFigures(profile),
    ...tripOf(profile),
    data: dataOf(tags.get('targ')),
  };
  return { ...found, remarks: remarksOf(profile, found) };
}

function dataOf(tag: IccTag | undefined): string | undefined {
  return tag?.type === 'text' && tag.text.length > 40 ? tag.text : undefined;
}

/** What a tag holds, in a line. */
export function tagWords(tag: IccTag): string {
  switch (tag.type) {
    case 'text':
    case 'desc':
      return tag.text.length > 70 ? `${tag.text.length} characters` : tag.text;
    case 'mluc':
      return tag.records.map(({ text }) => text).join(' / ');
    case 'XYZ':
      return tag.values.map((value) => value.map((v) => v.toFixed(4)).join(' ')).join(', ');
    case 'lut8':
    case 'lut16':
      return `${tag.inputs} to ${tag.outputs} channels, table of ${tag.clut.grid.join('×')}`;
    case 'mAB':
    case 'mBA':
      return `${tag.inputs} to ${tag.outputs} channels, ${tag.clut === undefined ? 'no table' : `table of ${tag.clut.grid.join('×')}`}`;
    default:
      return '';
  }
}

/** Inks beyond which separations leave out most combinations, and no table of theirs leads to them. */
const ALL_COMBINED = 4;

/**
 * Colours of random device values that keep to the most ink, to the device and back; of more than four inks the colours
 * that its own table to them prints.
 */
function tripOf(profile: IccProfile): Pick<ProfileInspection, 'roundTrip' | 'mostInk'> {
  const [to, back] = [labToDevice(profile, 'relative'), deviceToLab(profile, 'relative')];
  if (!to.ok || !back.ok || profile.header.deviceClass !== 'prtr') return {};
  const { outputs } = to.value;
  const most = mostInk(to.value);
  const random = createRandom(1);
  const device = new Float64Array(PROBES * outputs);
  for (let row = 0; row < PROBES;) {
    for (let ink = 0; ink < outputs; ink++) device[row * outputs + ink] = random.uniform();
    if (outputs === 3 || inkSum(device, row, outputs) <= most) row++;
  }
  let lab = transformed(back.value, device);
  if (outputs > ALL_COMBINED) lab = transformed(back.value, transformed(to.value, lab));
  const again = transformed(back.value, transformed(to.value, lab));
  return {
    roundTrip: summariseErrors(deltaE2000Rows(lab, again)),
    mostInk: outputs === 3 ? undefined : most,
  };
}

type Found = Omit<ProfileInspection, 'remarks'>;

function remarksOf(profile: IccProfile, found: Found): string[] {
  const { header, tags } = profile;
  const said: string[] = [];
  const say = (when: boolean, words: string): void => void (when && said.push(words));
  say(
    header.version.major >= 4,
    'Programs and front ends that know version 2 only refuse it, or read it wrongly.',
  );
  say(found.name.trim() === '', 'It has no description: programs list it by its file name, or not at all.');
  if (header.deviceClass !== 'prtr') return said;
  const ways = [0, 1, 2].map((i) => [tags.has(`A2B${i}`), tags.has(`B2A${i}`)] as const);
  if (!ways.some(([, to]) => to)) {
    said.push('It has no table from Lab to the device: nothing can be printed through it.');
    return said;
  }
  INTENTS.forEach((intent, i) => {
    const [from, to] = ways[i];
    say(from !== to, `Its ${intent} table leads one way only.`);
    say(
      !from && !to && i !== 1,
      `It has no table of its own for the ${intent} intent: another stands in for it.`,
    );
  });
  say(
    !tags.has('gamt'),
    'It has no gamut tag: programs that ask it cannot warn of colours that do not print.',
  );
  say(!tags.has('wtpt'), 'It does not tell the white of its paper: absolute colorimetric is as relative.');
  const { figures, roundTrip, mostInk } = found;
  if (figures === undefined) return said;
  const white = bareOf(profile, figures.channels);
  say(
    white !== undefined && deltaE2000Of(...white, 100, 0, 0) > OFF_WHITE,
    `Its relative table gives bare paper L* ${white?.map((value) => value.toFixed(1)).join(', ')}, not white: paper gets a tint.`,
  );
  say(
    (roundTrip?.p95 ?? 0) > LOOSE_TRIP,
    `Its tables do not fit each other: colours that print come back ${roundTrip?.p95.toFixed(1)} ΔE00 apart in the 95th percentile.`,
  );
  say(figures.cast > MOST_CAST, `Its greys have a cast: a* or b* reaches ${figures.cast.toFixed(1)}.`);
  say(
    (mostInk ?? 0) > HEAVY_INK,
    `It asks for up to ${Math.round(100 * (mostInk ?? 0))} % of ink, more than most presses and papers take.`,
  );
  say(
    figures.fit !== undefined && figures.fit.mean > LOOSE_FIT,
    `Its table is ${figures.fit?.mean.toFixed(1)} ΔE00 from the data that it carries itself.`,
  );
  said.push(...reversals(profile, figures));
  return said;
}

/** Relative Lab of the bare stock. */
function bareOf(profile: IccProfile, channels: number): Lab | undefined {
  const toLab = deviceToLab(profile, 'relative');
  if (!toLab.ok) return undefined;
  const out = new Float64Array(3);
  toLab.value.apply(new Float64Array(channels).fill(channels === 3 ? 1 : 0), out);
  return [out[0], out[1], out[2]];
}

/** Greys that get darker where lighter ones are asked for, and black ink that rises with lightness. */
function reversals(profile: IccProfile, { greys, channels }: ProfileFigures): string[] {
  const toLab = deviceToLab(profile, 'relative');
  if (!toLab.ok) return [];
  const said: string[] = [];
  const lab = new Float64Array(3 * greys.length);
  toLab.value.apply(Float64Array.from(greys.flatMap(({ device }) => device)), lab);
  const steps = greys.slice(1).map((grey, i) => ({ asked: grey.asked, fall: lab[3 * i] - lab[3 * i + 3] }));
  const worst = steps.reduce((a, b) => (b.fall > a.fall ? b : a), steps[0]);
  if (worst !== undefined && worst.fall > REVERSAL)
    said.push(
      `Its greys turn back by ${worst.fall.toFixed(1)} L* at L* ${worst.asked.toFixed(0)}: a ramp gets a band there.`,
    );
  if (channels === 4) {
    const rises = greys
      .slice(1)
      .map((grey, i) => ({ asked: grey.asked, rise: grey.device[3] - greys[i].device[3] }));
    const most = rises.reduce((a, b) => (b.rise > a.rise ? b : a), rises[0]);
    if (most !== undefined && most.rise > BLACK_REVERSAL)
      said.push(
        `Black rises by ${Math.round(100 * most.rise)} % towards lighter greys at L* ${most.asked.toFixed(0)}.`,
      );
  }
  return said;
}
