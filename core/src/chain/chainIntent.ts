import { scaleBlackPoint } from '../colour/scaleBlackPoint.ts';
import { WHITE_ICC } from '../colour/whitePoints.ts';
import type { Xyz } from '../colour/xyz.ts';
import { labToXyz } from '../colour/xyzToLab.ts';
import type { IccProfile } from '../icc/iccTypes.ts';
import { deviceToLab, labToDevice } from '../icc/profileTransform.ts';
import type { RenderingIntent } from '../icc/profileTransform.ts';
import { unwrap } from '../result.ts';

/** How a job is converted: an intent, with the black points of both sides brought together or not. */
export const CHAIN_INTENTS = {
  'relative-black': { words: 'relative colorimetric with black point compensation', intent: 'relative' },
  relative: { words: 'relative colorimetric', intent: 'relative' },
  perceptual: { words: 'perceptual', intent: 'perceptual' },
  saturation: { words: 'saturation', intent: 'saturation' },
  absolute: { words: 'absolute colorimetric', intent: 'absolute' },
} as const satisfies Record<string, { readonly words: string; readonly intent: RenderingIntent }>;

export type ChainIntent = keyof typeof CHAIN_INTENTS;

/** Perceptual black of the version 4 connection space (ICC.1:2022, 6.3.3). */
const REFERENCE_BLACK: Xyz = [0.00336, 0.0034731, 0.00287];
const BLACK: Xyz = [0, 0, 0];
/** No black that is lighter is compensated (ISO 18619). */
const LIGHTEST_BLACK = 50;

/**
 * Device values for colours of the connection space as programs convert them. A perceptual or saturation table of
 * version 4 begins at the reference black, to which programs scale unasked; with one of version 2 some scale to the
 * black that the table reaches and some do not, so that both are given.
 * @param lab row-major × 3, D50, black at zero.
 * @returns one or two sets of device rows, 0..1.
 */
export function convertAsJob(lab: Float64Array, profile: IccProfile, how: ChainIntent): Float64Array[] {
  const { intent } = CHAIN_INTENTS[how];
  const to = unwrap(labToDevice(profile, intent));
  const through = (black: Xyz): Float64Array => {
    const asked = new Float64Array(lab.length);
    for (let i = 0; i < lab.length; i += 3)
      asked.set(scaleBlackPoint([lab[i], lab[i + 1], lab[i + 2]], BLACK, black), i);
    const device = new Float64Array((lab.length / 3) * to.outputs);
    to.apply(asked, device);
    return device;
  };
  if (how === 'relative' || how === 'absolute') return [through(BLACK)];
  if (how === 'relative-black') return [through(blackOf(profile, 'relative'))];
  if (profile.header.version.major >= 4) return [through(REFERENCE_BLACK)];
  return [through(BLACK), through(blackOf(profile, intent))];
}

/** The neutral black that a profile reaches by an intent (ISO 18619), Y = 1. */
function blackOf(profile: IccProfile, intent: RenderingIntent): Xyz {
  const to = unwrap(labToDevice(profile, intent));
  const device = new Float64Array(to.outputs);
  const lab = new Float64Array(3);
  to.apply([0, 0, 0], device);
  unwrap(deviceToLab(profile, intent)).apply(device, lab);
  return labToXyz([Math.min(LIGHTEST_BLACK, Math.max(0, lab[0])), 0, 0], WHITE_ICC);
}
