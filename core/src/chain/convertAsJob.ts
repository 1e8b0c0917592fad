import type { Xyz } from '../colour/xyz.ts';
import type { IccProfile } from '../icc/iccTypes.ts';
import { blackOf, REFERENCE_MEDIUM_BLACK } from '../icc/profileBlack.ts';
import { labToDevice } from '../icc/profileTransform.ts';
import { unwrap } from '../result.ts';
import { blackPoint } from '../transform/links.ts';
import { chain } from '../transform/transform.ts';
import { CHAIN_INTENTS } from './chainIntent.ts';
import type { ChainIntent } from './chainIntent.ts';
import { BLACK } from './jobSource.ts';
import type { AskedColours } from './jobSource.ts';

/**
 * Device values for colours of the connection space as programs convert them. A perceptual or saturation table of
 * version 4 begins at the reference black, to which programs scale unasked; with one of version 2 some scale to the
 * black that the table reaches and some do not, so that both are given.
 * @returns sets of device rows, 0..1, one for each pair of blacks that programs bring together.
 */
export function convertAsJob(
  { lab, blacks }: AskedColours,
  profile: IccProfile,
  how: ChainIntent,
): Float64Array[] {
  const { intent } = CHAIN_INTENTS[how];
  const to = unwrap(labToDevice(profile, intent));
  const through = (from: Xyz, black: Xyz): Float64Array => {
    const device = new Float64Array((lab.length / 3) * to.outputs);
    chain(blackPoint(from, black), to).apply(lab, device);
    return device;
  };
  if (how === 'relative' || how === 'absolute') return [through(BLACK, BLACK)];
  const own =
    how === 'relative-black'
      ? [unwrap(blackOf(profile, 'relative', 'relative'))]
      : profile.header.version.major >= 4
        ? [REFERENCE_MEDIUM_BLACK]
        : [BLACK, unwrap(blackOf(profile, intent, intent))];
  return blacks.flatMap((from) => own.map((black) => through(from, black)));
}
