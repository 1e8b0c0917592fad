import { genericPressLab } from '../charts/genericPress.ts';
import type { Lab } from '../colour/lab.ts';
import { WHITE_ICC } from '../colour/whitePoints.ts';
import type { Xyz } from '../colour/xyz.ts';
import { labToXyz } from '../colour/xyzToLab.ts';
import type { IccProfile } from '../icc/iccTypes.ts';
import { absoluteToRelativeLab, deviceToLab } from '../icc/profileTransform.ts';
import { unwrap } from '../result.ts';
import { CHAIN_INTENTS } from './chainIntent.ts';
import type { ChainIntent } from './chainIntent.ts';
import { convertAsJob } from './convertAsJob.ts';
import { askedColours, BLACK } from './jobSource.ts';
import type { AskedColours, InkSource, JobSource } from './jobSource.ts';
import { OTHER_SPACES, sourceToLab } from './sourceSpaces.ts';

export type ChainCause = 'right' | 'no-profile' | 'twice' | 'intent' | 'source' | 'paper';

/** What a sheet would look like, had this happened on the way of the job. */
export interface ChainHypothesis {
  readonly cause: ChainCause;
  /** Completes “the sheet looks as if …”. */
  readonly says: string;
  /** What goes to the device, 0..1. */
  readonly device: Float64Array;
  /** Absolute Lab of each patch, row-major × 3. */
  readonly lab: Float64Array;
}

/** Another paper of the house for the same device. */
export interface OtherPaper {
  readonly name: string;
  readonly profile: IccProfile;
}

export interface ChainTold {
  /** Values of the picture, 0..1, row-major × channels of its source. */
  readonly values: Float64Array;
  readonly source: JobSource;
  /** The profile that the job should go through. */
  readonly profile: IccProfile;
  /** The intent that the job should use. */
  readonly intent: ChainIntent;
  readonly papers?: readonly OtherPaper[];
  /** Spaces of inks that the values may be taken for, besides a usual press. */
  readonly otherInks?: readonly InkSource[];
}

/** Everything that is known to happen to a job on its way to the paper, the right way first. */
export function chainHypotheses(told: ChainTold): ChainHypothesis[] {
  const { values, source, profile, intent, papers = [] } = told;
  const right = convertAsJob(askedColours(source, values, intent), profile, intent);
  const ways = Object.keys(CHAIN_INTENTS) as ChainIntent[];
  const found: ChainHypothesis[] = [];
  const add = (
    cause: ChainCause,
    says: string,
    devices: readonly Float64Array[],
    printed = profile,
  ): void => {
    for (const device of devices) found.push({ cause, says, device, lab: printedLab(printed, device) });
  };
  add('right', 'all went as it should', right);
  add(
    'no-profile',
    'the values went to the device without any profile',
    unconverted(values, source, profile),
  );
  for (const way of ways) {
    if (way !== intent)
      add(
        'intent',
        `the intent was ${CHAIN_INTENTS[way].words}`,
        convertAsJob(askedColours(source, values, way), profile, way),
      );
    const again = right.flatMap((device) =>
      takenAgain(device, source, profile, way).flatMap((asked) => convertAsJob(asked, profile, way)),
    );
    add('twice', 'the profile was applied twice', again);
  }
  for (const { name, asked } of otherSources(told))
    add(
      'source',
      `its values were taken for ${name} in place of ${source === 'sRGB' ? source : source.name}`,
      convertAsJob(asked, profile, intent),
    );
  for (const paper of papers) add('paper', `it was printed on ${paper.name}`, right, paper.profile);
  return found;
}

/** What the values ask for where a program takes them for another space. */
function otherSources({
  values,
  source,
  intent,
  otherInks = [],
}: ChainTold): readonly { readonly name: string; readonly asked: AskedColours }[] {
  if (source === 'sRGB')
    return OTHER_SPACES.map((space) => ({
      name: space.name,
      asked: { lab: sourceToLab(space, values), blacks: [BLACK] },
    }));
  return [
    { name: 'inks of offset on coated paper', asked: ofUsualPress(values) },
    ...otherInks.map((other) => ({ name: other.name, asked: askedColours(other, values, intent) })),
  ];
}

function printedLab(profile: IccProfile, device: Float64Array): Float64Array {
  const to = unwrap(deviceToLab(profile, 'absolute'));
  const lab = new Float64Array((device.length / to.inputs) * 3);
  to.apply(device, lab);
  return lab;
}

/** What a device gets where nothing converts: the values themselves, or what stands across from them. */
function unconverted(values: Float64Array, source: JobSource, profile: IccProfile): Float64Array[] {
  const takesRgb = profile.header.colourSpace === 'RGB ';
  if (takesRgb === (source === 'sRGB')) return [values];
  return takesRgb ? [lightOf(values, false), lightOf(values, true)] : [inksOf(values, 0), inksOf(values, 1)];
}

/** Inks across from RGB, their common part taken out for black by a share. */
function inksOf(rgb: Float64Array, removal: number): Float64Array {
  const out = new Float64Array((rgb.length / 3) * 4);
  for (let i = 0, o = 0; i < rgb.length; i += 3, o += 4) {
    const black = removal * (1 - Math.max(rgb[i], rgb[i + 1], rgb[i + 2]));
    for (let c = 0; c < 3; c++) out[o + c] = 1 - rgb[i + c] - black;
    out[o + 3] = black;
  }
  return out;
}

/** RGB across from inks: black added to each of them, or darkening what they leave. */
function lightOf(inks: Float64Array, product: boolean): Float64Array {
  const out = new Float64Array((inks.length / 4) * 3);
  for (let i = 0, o = 0; i < inks.length; i += 4, o += 3)
    for (let c = 0; c < 3; c++) {
      const black = inks[i + 3];
      out[o + c] = product ? (1 - inks[i + c]) * (1 - black) : Math.max(0, 1 - inks[i + c] - black);
    }
  return out;
}

/** What a second conversion takes values for that are the device's already: sRGB, inks of a usual press or of the job. */
function takenAgain(
  device: Float64Array,
  source: JobSource,
  profile: IccProfile,
  way: ChainIntent,
): readonly AskedColours[] {
  if (profile.header.colourSpace === 'RGB ') return [askedColours('sRGB', device, way)];
  const usual = ofUsualPress(device);
  return source === 'sRGB' ? [usual] : [usual, askedColours(source, device, way)];
}

/** What inks ask for as those of a usual press. */
function ofUsualPress(inks: Float64Array): AskedColours {
  const lab = new Float64Array((inks.length / 4) * 3);
  const white = relativeWhite(genericPressLab([0, 0, 0, 0]));
  for (let i = 0, o = 0; i < inks.length; i += 4, o += 3)
    lab.set(absoluteToRelativeLab(genericPressLab(inks, i), white), o);
  return { lab, blacks: [BLACK] };
}

const relativeWhite = (paper: Lab): Xyz => labToXyz(paper, WHITE_ICC);
