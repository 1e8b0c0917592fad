import { WHITE_ICC } from '../colour/whitePoints.ts';
import type { Xyz } from '../colour/xyz.ts';
import { labToXyz, xyzToLab } from '../colour/xyzToLab.ts';
import { success } from '../result.ts';
import type { Result } from '../result.ts';
import type { IccProfile } from './iccTypes.ts';
import { deviceToLab, labToDevice } from './profileTransform.ts';
import type { RenderingIntent } from './profileTransform.ts';

/** Perceptual black of version 4: the reference medium (ICC.1:2022, 6.3.3), Y = 1. */
export const REFERENCE_MEDIUM_BLACK: Xyz = [0.00336, 0.0034731, 0.00287];
/** No black that is lighter is compensated (ISO 18619). */
export const LIGHTEST_BLACK = 50;

/**
 * The neutral black that a profile reaches by one intent, as another one sees it (ISO 18619), Y = 1.
 * @param asked the black that is gone to it with.
 */
export function blackOf(
  profile: IccProfile,
  reached: RenderingIntent,
  seen: RenderingIntent,
  asked: Xyz = [0, 0, 0],
): Result<Xyz> {
  const to = labToDevice(profile, reached);
  if (!to.ok) return to;
  const device = new Float64Array(to.value.outputs);
  to.value.apply(xyzToLab(asked, WHITE_ICC), device);
  return neutralBlack(profile, device, seen);
}

/** The black of all inks of a CMYK profile together, or of no light of an RGB profile, Y = 1. */
export function darkestOf(profile: IccProfile, intent: RenderingIntent): Result<Xyz> {
  const inks = profile.header.colourSpace === 'CMYK';
  return neutralBlack(profile, inks ? Float64Array.of(1, 1, 1, 1) : new Float64Array(3), intent);
}

function neutralBlack(profile: IccProfile, device: Float64Array, intent: RenderingIntent): Result<Xyz> {
  const back = deviceToLab(profile, intent);
  if (!back.ok) return back;
  const lab = new Float64Array(3);
  back.value.apply(device, lab);
  return success(labToXyz([Math.min(LIGHTEST_BLACK, Math.max(0, lab[0])), 0, 0], WHITE_ICC));
}
