import type { IccProfile } from '../icc/iccTypes.ts';
import { deviceToLab, labToDevice } from '../icc/profileTransform.ts';
import type { RenderingIntent } from '../icc/profileTransform.ts';
import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import type { ToneCurves } from '../tone/toneCurve.ts';
import { blackPoint, toneCurves } from './links.ts';
import { destinationBlack, isMapped, sourceBlack } from './profileBlacks.ts';
import { chain } from './transform.ts';
import type { Transform } from './transform.ts';

/** From the values of one device, or from Lab, to those of another, or to Lab; through curves of its front end last. */
export interface Conversion {
  readonly from?: IccProfile;
  readonly to?: IccProfile;
  readonly intent: RenderingIntent;
  /**
   * Black of the one is brought to that of the other (ISO 18619); to perceptual and saturation tables of version 4 it
   * always is.
   */
  readonly blackPoint?: boolean;
  readonly curves?: ToneCurves;
  /** Links of Lab that a picture goes through before its black is scaled, and after. */
  readonly edits?: readonly Transform[];
  readonly mapped?: readonly Transform[];
}

/** All links of a conversion as one transform; a failure says which of them cannot be made. */
export function conversion({
  from,
  to,
  intent,
  blackPoint: scaled = false,
  curves,
  edits = [],
  mapped = [],
}: Conversion): Result<Transform> {
  if (from === undefined && to === undefined)
    return wrong('profiles', 'one to come from, one to go to, or both', 'none');
  if (scaled && (from === undefined || to === undefined || intent === 'absolute'))
    return wrong(
      'black point',
      'two profiles and an intent that is relative to them',
      `${intent}, one profile`,
    );
  const links: Transform[] = [];
  if (from !== undefined) {
    const link = deviceToLab(from, intent);
    if (!link.ok) return link;
    links.push(link.value);
  }
  links.push(...edits);
  if (from !== undefined && to !== undefined && (scaled || beginsAtAgreedBlack(to, intent))) {
    const scaling = blackScaling(from, to, intent);
    if (!scaling.ok) return scaling;
    links.push(scaling.value);
  }
  links.push(...mapped);
  if (to !== undefined) {
    const link = labToDevice(to, intent);
    if (!link.ok) return link;
    links.push(link.value);
  }
  if (curves !== undefined) {
    if (to === undefined || links[links.length - 1].outputs !== curves.length)
      return wrong('curves', 'as many as the device that is gone to has channels', `${curves.length}`);
    links.push(toneCurves(curves));
  }
  const [first, ...rest] = links;
  return success(chain(first, ...rest));
}

/**
 * Whether a profile's tables begin at the agreed black of version 4 (ICC.1:2022, 6.3.3): black is brought to it then,
 * asked or not, as programs do.
 */
const beginsAtAgreedBlack = ({ header }: IccProfile, intent: RenderingIntent): boolean =>
  isMapped(intent) && header.version.major >= 4;

/** Black of one profile brought to that of another, as an intent sees both (ISO 18619); Lab to Lab. */
export function blackScaling(from: IccProfile, to: IccProfile, intent: RenderingIntent): Result<Transform> {
  const source = sourceBlack(from, intent);
  if (!source.ok) return source;
  const own = destinationBlack(to, intent);
  if (!own.ok) return own;
  return success(blackPoint(source.value, own.value));
}

function wrong(path: string, expected: string, found: string): Result<never> {
  return failure({ code: 'conversion', path, expected, found });
}
