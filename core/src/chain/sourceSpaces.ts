import { adaptationMatrix } from '../colour/chromaticAdaptation.ts';
import { rgbToXyzMatrix } from '../colour/rgbSpace.ts';
import { WHITE_ICC, WHITE_SRGB } from '../colour/whitePoints.ts';
import type { Xyz } from '../colour/xyz.ts';
import { curveStage, matrixStage } from '../icc/compileLut.ts';
import type { IccCurve } from '../icc/iccTypes.ts';
import { xyzToLabStage } from '../icc/pcsEncoding.ts';
import { multiplyMatrix3 } from '../numerics/matrix3.ts';
import type { Matrix3 } from '../numerics/matrix3.ts';
import { ofStages, transformed } from '../transform/transform.ts';
import type { Transform } from '../transform/transform.ts';

/** A space of three primaries that the values of a picture may be taken for. */
export interface SourceSpace {
  readonly name: string;
  readonly white: Xyz;
  /** Linear RGB to XYZ of the connection space (D50). */
  readonly matrix: Matrix3;
  /** Signal to linear light, alike for the three. */
  readonly curve: IccCurve;
}

type Chromaticity = readonly [x: number, y: number];

function space(
  name: string,
  primaries: readonly [Chromaticity, Chromaticity, Chromaticity],
  white: Xyz,
  parameters: readonly number[],
): SourceSpace {
  return {
    name,
    white,
    matrix: multiplyMatrix3(adaptationMatrix(white, WHITE_ICC), rgbToXyzMatrix(...primaries, white)),
    curve: { kind: 'parametric', functionType: parameters.length === 1 ? 0 : 3, parameters },
  };
}

const SRGB_CURVE = [2.4, 1 / 1.055, 0.055 / 1.055, 1 / 12.92, 0.04045] as const;

/** IEC 61966-2-1. */
export const SRGB = space(
  'sRGB',
  [
    [0.64, 0.33],
    [0.3, 0.6],
    [0.15, 0.06],
  ],
  WHITE_SRGB,
  SRGB_CURVE,
);

/** Primaries of SMPTE RP 431-2 with the white and the curve of sRGB: what CSS calls `display-p3`. */
export const P3 = space(
  'P3 with the white of sRGB',
  [
    [0.68, 0.32],
    [0.265, 0.69],
    [0.15, 0.06],
  ],
  WHITE_SRGB,
  SRGB_CURVE,
);

/** Spaces that sRGB is mistaken for: wider ones of cameras, screens and archives, each by its standard. */
export const OTHER_SPACES: readonly SourceSpace[] = [
  P3,
  // IEC 61966-2-5.
  space(
    'opRGB',
    [
      [0.64, 0.33],
      [0.21, 0.71],
      [0.15, 0.06],
    ],
    WHITE_SRGB,
    [563 / 256],
  ),
  // ISO 22028-2.
  space(
    'ROMM RGB',
    [
      [0.7347, 0.2653],
      [0.1596, 0.8404],
      [0.0366, 0.0001],
    ],
    WHITE_ICC,
    [1.8, 1, 0, 1 / 16, 1 / 32],
  ),
];

/** Signals 0..1 to Lab of the connection space (D50). */
export function spaceToLab({ matrix, curve }: SourceSpace): Transform {
  return ofStages({
    ...{ inputs: 3, outputs: 3, stride: 3 },
    stages: [
      ...[0, 1, 2].flatMap((channel) => curveStage(curve, channel, 3)),
      matrixStage([...matrix, 0, 0, 0], 3),
      xyzToLabStage(3),
    ],
  });
}

/** The same for rows of three. */
export function sourceToLab(space: SourceSpace, rgb: ArrayLike<number>): Float64Array {
  return transformed(spaceToLab(space), rgb);
}
