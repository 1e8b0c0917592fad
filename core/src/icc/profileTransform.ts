import { WHITE_ICC } from '../colour/whitePoints.ts';
import { labToXyz, xyzToLab } from '../colour/xyzToLab.ts';
import type { Lab } from '../colour/lab.ts';
import type { Xyz } from '../colour/xyz.ts';
import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import { compileLut } from './compileLut.ts';
import type { IccProfile, LutAbTag, LutTag } from './iccTypes.ts';
import { labDecoder, labEncoder } from './pcsEncoding.ts';

export type RenderingIntent = 'perceptual' | 'relative' | 'saturation' | 'absolute';

/** Batch map between device rows (0..1) and Lab rows of the connection space (D50, absolute for that intent). */
export interface ProfileTransform {
  readonly inputs: number;
  readonly outputs: number;
  apply(input: ArrayLike<number>, output: Float64Array): void;
}

const TAG_NUMBER: Readonly<Record<RenderingIntent, number>> = {
  perceptual: 0,
  relative: 1,
  saturation: 2,
  absolute: 1,
};

function table(
  profile: IccProfile,
  direction: 'A2B' | 'B2A',
  intent: RenderingIntent,
): Result<LutTag | LutAbTag> {
  const tag = profile.tags.get(`${direction}${TAG_NUMBER[intent]}`) ?? profile.tags.get(`${direction}0`);
  if (tag === undefined || !('inputs' in tag))
    return failure({
      code: 'icc.no-table',
      path: `${direction}${TAG_NUMBER[intent]}`,
      expected: 'a table for this intent',
      found: 'none',
    });
  if (profile.header.pcs !== 'Lab ')
    return failure({ code: 'icc.pcs', path: 'connection space', expected: 'Lab', found: profile.header.pcs });
  return success(tag);
}

/** Media white of a profile (`wtpt`, Y = 1), D50 where it has none. */
export function mediaWhite(profile: IccProfile): readonly [number, number, number] {
  const tag = profile.tags.get('wtpt');
  return tag?.type === 'XYZ' && tag.values.length > 0 ? tag.values[0] : WHITE_ICC;
}

/** Media-relative Lab to absolute Lab, both D50 (ICC.1:2022, 6.3.2). */
export function relativeToAbsoluteLab(lab: Lab, white: readonly [number, number, number]): Lab {
  const xyz = labToXyz(lab, WHITE_ICC);
  return xyzToLab(
    [(xyz[0] * white[0]) / WHITE_ICC[0], xyz[1] * white[1], (xyz[2] * white[2]) / WHITE_ICC[2]],
    WHITE_ICC,
  );
}

export function absoluteToRelativeLab(lab: Lab, white: readonly [number, number, number]): Lab {
  const xyz = labToXyz(lab, WHITE_ICC);
  return xyzToLab(
    [(xyz[0] * WHITE_ICC[0]) / white[0], xyz[1] / white[1], (xyz[2] * WHITE_ICC[2]) / white[2]],
    WHITE_ICC,
  );
}

/** The same for a list of colours and a measured paper (Y = 100); row-major × 3. */
export function relativeToPaper(labs: readonly Lab[], paperXyz: Xyz): Float64Array {
  const white = [paperXyz[0] / 100, paperXyz[1] / 100, paperXyz[2] / 100] as const;
  return Float64Array.from(labs.flatMap((lab) => [...absoluteToRelativeLab(lab, white)]));
}

/** Device values to Lab by the profile's A2B table. */
export function deviceToLab(profile: IccProfile, intent: RenderingIntent): Result<ProfileTransform> {
  const found = table(profile, 'A2B', intent);
  if (!found.ok) return found;
  const tag = found.value;
  const row = compileLut(tag, 'tetrahedral');
  const decode = labDecoder(tag);
  const white = mediaWhite(profile);
  const input = new Float64Array(16);
  const output = new Float64Array(16);
  return success({
    inputs: tag.inputs,
    outputs: 3,
    apply(values, out) {
      for (let r = 0, n = values.length / tag.inputs; r < n; r++) {
        for (let i = 0; i < tag.inputs; i++) input[i] = values[r * tag.inputs + i];
        row(input, output);
        let lab = decode(output);
        if (intent === 'absolute') lab = relativeToAbsoluteLab(lab, white);
        out.set(lab, r * 3);
      }
    },
  });
}

/** Lab to device values by the profile's B2A table. */
export function labToDevice(profile: IccProfile, intent: RenderingIntent): Result<ProfileTransform> {
  const found = table(profile, 'B2A', intent);
  if (!found.ok) return found;
  const tag = found.value;
  const row = compileLut(tag, 'multilinear');
  const encode = labEncoder(tag);
  const white = mediaWhite(profile);
  const input = new Float64Array(16);
  const output = new Float64Array(16);
  return success({
    inputs: 3,
    outputs: tag.outputs,
    apply(values, out) {
      for (let r = 0, n = values.length / 3; r < n; r++) {
        let lab: Lab = [values[3 * r], values[3 * r + 1], values[3 * r + 2]];
        if (intent === 'absolute') lab = absoluteToRelativeLab(lab, white);
        encode(lab, input);
        row(input, output);
        for (let o = 0; o < tag.outputs; o++) out[r * tag.outputs + o] = Math.min(1, Math.max(0, output[o]));
      }
    },
  });
}
