import type { DeviceSpace } from '../device/deviceSpace.ts';

/** Field names of device values, by space (ISO 28178, Annex B, and common use). */
export const DEVICE_FIELDS: Readonly<Record<DeviceSpace, readonly string[]>> = {
  rgb: ['RGB_R', 'RGB_G', 'RGB_B'],
  cmyk: ['CMYK_C', 'CMYK_M', 'CMYK_Y', 'CMYK_K'],
  cmykog: ['CMYKOG_C', 'CMYKOG_M', 'CMYKOG_Y', 'CMYKOG_K', 'CMYKOG_O', 'CMYKOG_G'],
};

const SPECTRAL = /^(?:SPECTRAL_?(?:NM_?)?|NM_?|R_?)(\d{3,4})$/i;

/** Wavelength in nm that a field such as `SPECTRAL_NM380`, `SPECTRAL_380`, `NM380` or `nm380` stands for. */
export function spectralFieldNm(name: string): number | undefined {
  const match = SPECTRAL.exec(name);
  return match === null ? undefined : Number(match[1]);
}

const NUMERIC = /^(?:RGB_|CMYK|\d+CLR_|[2-9]CLR|LAB_|XYZ_|XYY_|D_|STDEV_|MEAN_|CHI_|LCH_)/i;

/** Fields whose values must be numbers. */
export function isNumericField(name: string): boolean {
  return NUMERIC.test(name) || spectralFieldNm(name) !== undefined;
}
