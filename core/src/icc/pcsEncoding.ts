import type { Lab } from '../colour/lab.ts';
import type { LutAbTag, LutTag } from './iccTypes.ts';

/** 16-bit Lab of `lut16`: 100 is FF00h, a* = b* = 0 is 8000h, in both versions (ICC.1:2022, 10.10, table 42). */
const LEGACY_L = (100 * 65535) / 65280;
const LEGACY_AB = 65535 / 256;

/** Normalised table output to Lab. */
export function labDecoder(tag: LutTag | LutAbTag): (row: Float64Array) => Lab {
  return tag.type === 'lut16'
    ? (row) => [row[0] * LEGACY_L, row[1] * LEGACY_AB - 128, row[2] * LEGACY_AB - 128]
    : (row) => [row[0] * 100, row[1] * 255 - 128, row[2] * 255 - 128];
}

/** Lab to normalised table input, clipped to the encoding's range. */
export function labEncoder(tag: LutTag | LutAbTag): (lab: Lab, row: Float64Array) => void {
  const legacy = tag.type === 'lut16';
  const perL = 1 / (legacy ? LEGACY_L : 100);
  const perAb = 1 / (legacy ? LEGACY_AB : 255);
  return (lab, row) => {
    row[0] = Math.min(1, Math.max(0, lab[0] * perL));
    row[1] = Math.min(1, Math.max(0, (lab[1] + 128) * perAb));
    row[2] = Math.min(1, Math.max(0, (lab[2] + 128) * perAb));
  };
}
