import { WHITE_ICC } from '../colour/whitePoints.ts';
import { labFunction, labFunctionInverse } from '../colour/xyzToLab.ts';
import type { Stage } from '../transform/stage.ts';
import type { LutAbTag, LutTag } from './iccTypes.ts';

/** 16-bit Lab of `lut16`: 100 is FF00h, a* = b* = 0 is 8000h, in both versions (ICC.1:2022, 10.10, table 42). */
const LEGACY_L = (100 * 65535) / 65280;
const LEGACY_AB = 65535 / 256;
/** XYZ of 1 is 8000h (ICC.1:2022, table 11). */
const MOST_XYZ = 65535 / 32768;

const rangeOf = (tag: LutTag | LutAbTag): readonly [l: number, ab: number] =>
  tag.type === 'lut16' ? [LEGACY_L, LEGACY_AB] : [100, 255];

/** Normalised table output to Lab, in place. */
export function labDecoder(tag: LutTag | LutAbTag, stride: number): Stage {
  const [l, ab] = rangeOf(tag);
  return (rows, count) => {
    for (let at = 0, end = count * stride; at < end; at += stride) {
      rows[at] *= l;
      rows[at + 1] = rows[at + 1] * ab - 128;
      rows[at + 2] = rows[at + 2] * ab - 128;
    }
  };
}

/** Lab to normalised table input, clipped to the encoding's range, in place. */
export function labEncoder(tag: LutTag | LutAbTag, stride: number): Stage {
  const [l, ab] = rangeOf(tag);
  return (rows, count) => {
    for (let at = 0, end = count * stride; at < end; at += stride) {
      rows[at] = Math.min(1, Math.max(0, rows[at] / l));
      rows[at + 1] = Math.min(1, Math.max(0, (rows[at + 1] + 128) / ab));
      rows[at + 2] = Math.min(1, Math.max(0, (rows[at + 2] + 128) / ab));
    }
  };
}

/** Normalised table output to Lab, where the connection space is XYZ. */
export function xyzDecoder(stride: number): Stage {
  const toLab = xyzToLabStage(stride);
  return (rows, count) => {
    for (let at = 0, end = count * stride; at < end; at += stride)
      for (let i = 0; i < 3; i++) rows[at + i] *= MOST_XYZ;
    toLab(rows, count);
  };
}

export function xyzEncoder(stride: number): Stage {
  const toXyz = labToXyzStage(stride);
  return (rows, count) => {
    toXyz(rows, count);
    for (let at = 0, end = count * stride; at < end; at += stride)
      for (let i = 0; i < 3; i++) rows[at + i] = Math.min(1, Math.max(0, rows[at + i] / MOST_XYZ));
  };
}

/** XYZ of the connection space (Y = 1) to Lab, in place; each axis scaled before. */
export function xyzToLabStage(stride: number, scale: readonly number[] = [1, 1, 1]): Stage {
  const [x, y, z] = scale.map((value, i) => value / WHITE_ICC[i]);
  return (rows, count) => {
    for (let at = 0, end = count * stride; at < end; at += stride) {
      const fx = labFunction(rows[at] * x);
      const fy = labFunction(rows[at + 1] * y);
      const fz = labFunction(rows[at + 2] * z);
      rows[at] = 116 * fy - 16;
      rows[at + 1] = 500 * (fx - fy);
      rows[at + 2] = 200 * (fy - fz);
    }
  };
}

/** Lab to XYZ of the connection space, in place; each axis scaled after. */
export function labToXyzStage(stride: number, scale: readonly number[] = [1, 1, 1]): Stage {
  const [x, y, z] = scale.map((value, i) => value * WHITE_ICC[i]);
  return (rows, count) => {
    for (let at = 0, end = count * stride; at < end; at += stride) {
      const fy = (rows[at] + 16) / 116;
      const fx = fy + rows[at + 1] / 500;
      const fz = fy - rows[at + 2] / 200;
      rows[at] = x * labFunctionInverse(fx);
      rows[at + 1] = y * labFunctionInverse(fy);
      rows[at + 2] = z * labFunctionInverse(fz);
    }
  };
}
