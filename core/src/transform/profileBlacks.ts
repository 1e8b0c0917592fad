import type { Xyz } from '../colour/xyz.ts';
import { WHITE_ICC } from '../colour/whitePoints.ts';
import { labToXyz } from '../colour/xyzToLab.ts';
import type { IccProfile } from '../icc/iccTypes.ts';
import { blackOf, darkestOf, LIGHTEST_BLACK, REFERENCE_MEDIUM_BLACK } from '../icc/profileBlack.ts';
import { deviceToLab, labToDevice } from '../icc/profileTransform.ts';
import type { RenderingIntent } from '../icc/profileTransform.ts';
import { solve3 } from '../numerics/solve3.ts';
import { success } from '../result.ts';
import type { Result } from '../result.ts';
import { chain, transformed } from './transform.ts';

/** Steps of L* that the way to a device and back is looked at by. */
const STEPS = 256;
/** How far the middle may be from straight, in L*, and where it begins, as a share of the range. */
const STRAIGHT = 4;
const MIDDLE_FROM = 0.2;
/** The shadows that the corner is found from, as shares of the range. */
const SHADOWS = { relative: [0.1, 0.5], mapped: [0.03, 0.25] } as const;
const NO_BLACK: Xyz = [0, 0, 0];

/** Whether an intent has an agreed black in version 4. */
export const isMapped = (intent: RenderingIntent): boolean =>
  intent === 'perceptual' || intent === 'saturation';

/** The black that colours of a profile have by an intent that is relative to its white (ISO 18619), Y = 1. */
export function sourceBlack(profile: IccProfile, intent: RenderingIntent): Result<Xyz> {
  const { version, colourSpace, deviceClass } = profile.header;
  const tables = profile.tags.has('A2B0');
  if (version.major >= 4 && isMapped(intent) && tables) return success(REFERENCE_MEDIUM_BLACK);
  // Of inks the darkest that is printed, not all in full.
  if (intent === 'relative' && deviceClass === 'prtr' && isInks(colourSpace) && profile.tags.has('B2A0'))
    return blackOf(profile, 'perceptual', 'relative', version.major >= 4 ? REFERENCE_MEDIUM_BLACK : NO_BLACK);
  return colourSpace === 'CMYK' || colourSpace === 'RGB '
    ? darkestOf(profile, intent)
    : blackOf(profile, intent, intent);
}

/**
 * The black that a profile brings colours to by an intent that is relative to its white (ISO 18619), Y = 1: where
 * its tables bend before it, as the corner of the way to the device and back says.
 */
export function destinationBlack(profile: IccProfile, intent: RenderingIntent): Result<Xyz> {
  const { version } = profile.header;
  const tables = profile.tags.has('B2A0');
  if (!tables || (version.major >= 4 && isMapped(intent))) return sourceBlack(profile, intent);
  const to = labToDevice(profile, intent);
  if (!to.ok) return to;
  const back = deviceToLab(profile, 'relative');
  if (!back.ok) return back;
  const asked = Float64Array.from({ length: 3 * STEPS }, (_, i) =>
    i % 3 === 0 ? (100 * i) / 3 / (STEPS - 1) : 0,
  );
  const reached = transformed(chain(to.value, back.value), asked);
  const input = Array.from({ length: STEPS }, (_, i) => asked[3 * i]);
  const output = Array.from({ length: STEPS }, (_, i) => reached[3 * i]);
  for (let i = STEPS - 2; i > 0; i--) output[i] = Math.min(output[i], output[i + 1]);
  const [least, most] = [output[0], output[STEPS - 1]];
  if (!(least < most)) return success(NO_BLACK);
  if (intent === 'relative') {
    const middle = least + MIDDLE_FROM * (most - least);
    if (input.every((l, i) => l <= middle || Math.abs(l - output[i]) < STRAIGHT))
      return sourceBlack(profile, intent);
  }
  const [from, until] = intent === 'relative' ? SHADOWS.relative : SHADOWS.mapped;
  const rows = input.flatMap((l, i) => {
    const share = (output[i] - least) / (most - least);
    return share >= from && share < until ? [[l, share] as const] : [];
  });
  return success(labToXyz([cornerOf(rows), 0, 0], WHITE_ICC));
}

const isInks = (space: string): boolean => space === 'CMYK' || space.endsWith('CLR');

/** Where a quadratic through points meets nought (least squares), 0 to 50; nought where it meets none. */
function cornerOf(rows: readonly (readonly [x: number, y: number])[]): number {
  if (rows.length < 3) return 0;
  const sum = (of: (x: number, y: number) => number): number =>
    rows.reduce((total, [x, y]) => total + of(x, y), 0);
  const power = (n: number): number => sum((x) => x ** n);
  const squares = [
    ...[rows.length, power(1), power(2)],
    ...[power(1), power(2), power(3)],
    ...[power(2), power(3), power(4)],
  ];
  const sums = [sum((_, y) => y), sum((x, y) => x * y), sum((x, y) => x * x * y)];
  const solved = new Float64Array(3);
  if (!solve3(Float64Array.from(squares), Float64Array.from(sums), solved)) return 0;
  const [c, b, a] = solved;
  const within = b * b - 4 * a * c;
  if (Math.abs(a) < 1e-10 || within <= 0) return 0;
  return Math.min(LIGHTEST_BLACK, Math.max(0, (-b + Math.sqrt(within)) / (2 * a)));
}
