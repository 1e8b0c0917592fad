import { genericPressLab } from '../charts/genericPress.ts';
import type { Lab } from '../colour/lab.ts';
import { WHITE_ICC } from '../colour/whitePoints.ts';
import type { Xyz } from '../colour/xyz.ts';
import { labToXyz } from '../colour/xyzToLab.ts';
import type { IccProfile } from '../icc/iccTypes.ts';
import { absoluteToRelativeLab, deviceToLab } from '../icc/profileTransform.ts';
import { unwrap } from '../result.ts';
import { CHAIN_INTENTS, convertAsJob } from './chainIntent.ts';
import type { ChainIntent } from './chainIntent.ts';
import { OTHER_SPACES, sourceToLab, SRGB } from './sourceSpaces.ts';

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
  /** sRGB values of the picture, 0..1, row-major × 3. */
  readonly rgb: Float64Array;
  /** The profile that the job should go through. */
  readonly profile: IccProfile;
  /** The intent that the job should use. */
  readonly intent: ChainIntent;
  readonly papers?: readonly OtherPaper[];
}

/** Everything that is known to happen to a job on its way to the paper, the right way first. */
export function chainHypotheses({ rgb, profile, intent, papers = [] }: ChainTold): ChainHypothesis[] {
  const asked = sourceToLab(SRGB, rgb);
  const right = convertAsJob(asked, profile, intent);
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
  add('no-profile', 'the values went to the device without any profile', unconverted(rgb, profile));
  for (const way of ways) {
    if (way !== intent)
      add('intent', `the intent was ${CHAIN_INTENTS[way].words}`, convertAsJob(asked, profile, way));
    const again = right.flatMap((device) => convertAsJob(takenAgain(device, profile), profile, way));
    add('twice', 'the profile was applied twice', again);
  }
  for (const space of OTHER_SPACES)
    add(
      'source',
      `its values were taken for ${space.name} in place of sRGB`,
      convertAsJob(sourceToLab(space, rgb), profile, intent),
    );
  for (const paper of papers) add('paper', `it was printed on ${paper.name}`, right, paper.profile);
  return found;
}

function printedLab(profile: IccProfile, device: Float64Array): Float64Array {
  const to = unwrap(deviceToLab(profile, 'absolute'));
  const lab = new Float64Array((device.length / to.inputs) * 3);
  to.apply(device, lab);
  return lab;
}

/** What a device gets where nothing converts: the values themselves, or the inks that stand across from them. */
function unconverted(rgb: Float64Array, profile: IccProfile): Float64Array[] {
  if (profile.header.colourSpace === 'RGB ') return [rgb];
  return [0, 1].map((removal) => {
    const out = new Float64Array((rgb.length / 3) * 4);
    for (let i = 0, o = 0; i < rgb.length; i += 3, o += 4) {
      const black = removal * (1 - Math.max(rgb[i], rgb[i + 1], rgb[i + 2]));
      for (let c = 0; c < 3; c++) out[o + c] = 1 - rgb[i + c] - black;
      out[o + 3] = black;
    }
    return out;
  });
}

/** What a second conversion takes values for that are the device's already: sRGB, or inks of a usual press. */
function takenAgain(device: Float64Array, profile: IccProfile): Float64Array {
  if (profile.header.colourSpace === 'RGB ') return sourceToLab(SRGB, device);
  const lab = new Float64Array((device.length / 4) * 3);
  const white = relativeWhite(genericPressLab([0, 0, 0, 0]));
  for (let i = 0, o = 0; i < device.length; i += 4, o += 3)
    lab.set(absoluteToRelativeLab(genericPressLab(device, i), white), o);
  return lab;
}

const relativeWhite = (paper: Lab): Xyz => labToXyz(paper, WHITE_ICC);
