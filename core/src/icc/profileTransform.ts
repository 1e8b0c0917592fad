import { WHITE_ICC } from '../colour/whitePoints.ts';
import { labToXyz, xyzToLab } from '../colour/xyzToLab.ts';
import type { Lab } from '../colour/lab.ts';
import type { Xyz } from '../colour/xyz.ts';
import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import { compileLut } from './compileLut.ts';
import type { IccProfile, LutAbTag, LutTag } from './iccTypes.ts';
import { ofStages } from '../transform/transform.ts';
import type { Transform } from '../transform/transform.ts';
import type { Stage } from '../transform/stage.ts';
import {
  labDecoder,
  labEncoder,
  labToXyzStage,
  xyzDecoder,
  xyzEncoder,
  xyzToLabStage,
} from './pcsEncoding.ts';
import { shaperOf } from './shaper.ts';

/** In the order in which headers and programs count them, from 0. */
export const RENDERING_INTENTS = ['perceptual', 'relative', 'saturation', 'absolute'] as const;
export type RenderingIntent = (typeof RENDERING_INTENTS)[number];

/**
 * Between device rows (0..1) and Lab rows of the connection space (D50, absolute for that intent); a RangeError names the
 * row of a value that is none, and of device values that are not 0..1.
 */
export type ProfileTransform = Transform;

/** Device values may be so far beyond 0..1 by rounding; what is farther counts in another unit. */
const ROUNDING = 0.02;

const TAG_NUMBER: Readonly<Record<RenderingIntent, number>> = {
  perceptual: 0,
  relative: 1,
  saturation: 2,
  absolute: 1,
};

/**
 * Media white of a profile (`wtpt`, Y = 1), D50 where it has none. Screens of version 2 tell the white of their light
 * there, which their colours are adapted from already: theirs is D50 as well, as version 4 asks.
 */
export function mediaWhite(profile: IccProfile): readonly [number, number, number] {
  const { version, deviceClass } = profile.header;
  if (version.major < 4 && deviceClass === 'mntr') return WHITE_ICC;
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

/** Device values to Lab: by the A2B table of the intent, or by curves and matrix where the profile has no table. */
export function deviceToLab(profile: IccProfile, intent: RenderingIntent): Result<ProfileTransform> {
  const found = tableOf(profile, 'A2B', intent);
  if (!isConnection(profile)) return wrongSpace(profile.header.pcs);
  const absolute = absoluteStage(profile, intent, 'to Lab');
  if (found !== undefined) {
    const { inputs, stride, run } = compileLut(found, 'tetrahedral');
    if (found.outputs !== 3) return wrongSpace(`a table of ${found.outputs}`);
    const decode = profile.header.pcs === 'XYZ ' ? xyzDecoder(stride) : labDecoder(found, stride);
    return success(batch(inputs, 3, stride, [run, decode, ...absolute(stride)], 'device'));
  }
  const shaper = shaperOf(profile);
  if (!shaper.ok) return shaper;
  const { channels, toLab } = shaper.value;
  return success(batch(channels, 3, 3, [...toLab, ...absolute(3)], 'device'));
}

/** Lab to device values: by the B2A table of the intent, or by matrix and curves where the profile has no table. */
export function labToDevice(profile: IccProfile, intent: RenderingIntent): Result<ProfileTransform> {
  const found = tableOf(profile, 'B2A', intent);
  if (!isConnection(profile)) return wrongSpace(profile.header.pcs);
  const absolute = absoluteStage(profile, intent, 'from Lab');
  if (found !== undefined) {
    const { outputs, stride, run } = compileLut(found, 'multilinear');
    if (found.inputs !== 3) return wrongSpace(`a table of ${found.inputs}`);
    const encode = profile.header.pcs === 'XYZ ' ? xyzEncoder(stride) : labEncoder(found, stride);
    return success(
      batch(3, outputs, stride, [...absolute(stride), encode, run, clipped(stride, outputs)], 'Lab'),
    );
  }
  // A profile that tells only how to come from the device does not tell the way back, unless it is curves and a matrix.
  if (tableOf(profile, 'A2B', intent) !== undefined) return noTable('B2A', intent);
  const shaper = shaperOf(profile);
  if (!shaper.ok) return shaper;
  const { channels, fromLab } = shaper.value;
  return success(batch(3, channels, 3, [...absolute(3), ...fromLab], 'Lab'));
}

function tableOf(
  profile: IccProfile,
  direction: 'A2B' | 'B2A',
  intent: RenderingIntent,
): LutTag | LutAbTag | undefined {
  const tag = profile.tags.get(`${direction}${TAG_NUMBER[intent]}`) ?? profile.tags.get(`${direction}0`);
  return tag !== undefined && 'inputs' in tag ? tag : undefined;
}

function noTable(direction: 'A2B' | 'B2A', intent: RenderingIntent): Result<never> {
  return failure({
    code: 'icc.no-table',
    path: `${direction}${TAG_NUMBER[intent]}`,
    expected: 'a table for this intent',
    found: 'none',
  });
}

const isConnection = ({ header }: IccProfile): boolean => header.pcs === 'Lab ' || header.pcs === 'XYZ ';

function wrongSpace(found: string): Result<never> {
  return failure({ code: 'icc.pcs', path: 'connection space', expected: 'Lab or XYZ', found });
}

/** Between media-relative and absolute colours, where the intent asks for it. */
function absoluteStage(
  profile: IccProfile,
  intent: RenderingIntent,
  way: 'to Lab' | 'from Lab',
): (stride: number) => Stage[] {
  if (intent !== 'absolute') return () => [];
  const white = mediaWhite(profile).map((value, i) => value / WHITE_ICC[i]);
  const scale = way === 'to Lab' ? white : white.map((value) => 1 / value);
  return (stride) => [labToXyzStage(stride, scale), xyzToLabStage(stride)];
}

function clipped(stride: number, outputs: number): Stage {
  return (rows, count) => {
    for (let at = 0, end = count * stride; at < end; at += stride)
      for (let o = 0; o < outputs; o++) rows[at + o] = Math.min(1, Math.max(0, rows[at + o]));
  };
}

function batch(
  inputs: number,
  outputs: number,
  stride: number,
  stages: readonly Stage[],
  from: 'device' | 'Lab',
): ProfileTransform {
  const range = from === 'device' ? { least: -ROUNDING, most: 1 + ROUNDING, expected: '0 to 1' } : {};
  return ofStages({ inputs, outputs, stride, stages, ...range });
}
