import type { Xyz } from '../colour/xyz.ts';
import { CMYK, RGB } from '../device/process.ts';
import type { Process } from '../device/process.ts';
import type { IccProfile } from '../icc/iccTypes.ts';
import { blackOf, darkestOf, REFERENCE_MEDIUM_BLACK } from '../icc/profileBlack.ts';
import { deviceToLab, labToDevice } from '../icc/profileTransform.ts';
import { success, unwrap } from '../result.ts';
import type { Result } from '../result.ts';
import { CHAIN_INTENTS } from './chainIntent.ts';
import type { ChainIntent } from './chainIntent.ts';
import { sourceToLab, SRGB } from './sourceSpaces.ts';

/** The space that the values of a job's picture are meant in: sRGB, or inks by the profile that they carry. */
export type JobSource = 'sRGB' | InkSource;

/** CMYK by a profile. */
export interface InkSource {
  readonly name: string;
  readonly profile: IccProfile;
}

/** Colours of the connection space that a job asks for, by the table of an intent. */
export interface AskedColours {
  /** Row-major × 3, D50. */
  readonly lab: Float64Array;
  /** Black of the source, Y = 1; several where programs find different ones. */
  readonly blacks: readonly Xyz[];
}

export const BLACK: Xyz = [0, 0, 0];

/** A profile that leads both ways: a job is read by one, its black point is found by the other. */
export function leadingBothWays(profile: IccProfile): Result<IccProfile> {
  const to = deviceToLab(profile, 'relative');
  if (!to.ok) return to;
  const back = labToDevice(profile, 'perceptual');
  return back.ok ? success(profile) : back;
}

/** The process whose values a source has. */
export function processOf(source: JobSource): Process {
  return source === 'sRGB' ? RGB : CMYK;
}

/** What values of a source ask for. */
export function askedColours(source: JobSource, values: Float64Array, how: ChainIntent): AskedColours {
  if (source === 'sRGB') return { lab: sourceToLab(SRGB, values), blacks: [BLACK] };
  const { profile } = source;
  const { intent } = CHAIN_INTENTS[how];
  const to = unwrap(deviceToLab(profile, intent));
  const lab = new Float64Array((values.length / to.inputs) * 3);
  to.apply(values, lab);
  return { lab, blacks: sourceBlacks(profile, how) };
}

function sourceBlacks(profile: IccProfile, how: ChainIntent): readonly Xyz[] {
  const { intent } = CHAIN_INTENTS[how];
  if (how === 'relative-black') return [unwrap(blackOf(profile, 'perceptual', 'relative'))];
  if (intent === 'relative' || intent === 'absolute') return [BLACK];
  if (profile.header.version.major >= 4) return [REFERENCE_MEDIUM_BLACK];
  return [BLACK, unwrap(blackOf(profile, intent, intent)), unwrap(darkestOf(profile, intent))];
}
