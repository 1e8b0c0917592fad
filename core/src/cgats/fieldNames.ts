import { CMYK, inkProcess, MOST_CHANNELS, RGB } from '../device/process.ts';
import type { Process } from '../device/process.ts';

/**
 * Field names of device values (ISO 28178, Annex B, and common use): the names of all channels in a row before the
 * channel's own, `CMYK_C`; counted, `6CLR_1`, where a name is no single letter.
 */
export function deviceFields({ channels, name: whole }: Process): readonly string[] {
  return channels.every(({ name }) => /^[A-Z]$/.test(name))
    ? channels.map(({ name }) => `${whole}_${name}`)
    : channels.map((_, i) => `${channels.length}CLR_${i + 1}`);
}

/** The process that the letters before a channel's own stand for, as `CMYK` in `CMYK_C`. */
export function processOfLetters(letters: string): Process {
  return letters === 'RGB' ? RGB : letters === 'CMYK' ? CMYK : inkProcess([...letters]);
}

/** Inks that are counted and not named. */
export function countedProcess(count: number): Process {
  return inkProcess(Array.from({ length: count }, (_, i) => `ink ${i + 1}`));
}

/** Prefixes of one to three letters that stand for colours or differences, not for inks. */
export const NO_INKS = new Set(['LAB', 'XYZ', 'XYY', 'LCH', 'D', 'NM', 'R', 'CIE']);

/**
 * The process whose values the fields of a table give; undefined where they give none. Of several the one with the most
 * channels is taken; whether all its fields are there is for the caller to see.
 */
export function processOfFields(names: readonly string[]): Process | undefined {
  const found: Process[] = [];
  for (const name of names) {
    const counted = /^([1-9])CLR_\d$/i.exec(name);
    if (counted !== null && Number(counted[1]) <= MOST_CHANNELS) {
      found.push(countedProcess(Number(counted[1])));
      continue;
    }
    const [, prefix = '', channel = ''] = /^([A-Z]{1,8})_([A-Z])$/i.exec(name.toUpperCase()) ?? [];
    if (
      prefix === '' ||
      NO_INKS.has(prefix) ||
      !prefix.includes(channel) ||
      new Set(prefix).size < prefix.length
    )
      continue;
    found.push(processOfLetters(prefix));
  }
  return found.sort((a, b) => b.channels.length - a.channels.length)[0];
}

const SPECTRAL = /^(?:SPECTRAL_?(?:NM_?)?|NM_?|R_?)(\d{3,4})$/i;

/** Wavelength in nm that a field such as `SPECTRAL_NM380`, `SPECTRAL_380`, `NM380` or `nm380` stands for. */
export function spectralFieldNm(name: string): number | undefined {
  const match = SPECTRAL.exec(name);
  return match === null ? undefined : Number(match[1]);
}

const NUMERIC = /^(?:RGB_|CMYK|[A-Z]{1,8}_[A-Z]$|\d+CLR_|[2-9]CLR|LAB_|XYZ_|XYY_|D_|STDEV_|MEAN_|CHI_|LCH_)/i;

/** Fields whose values must be numbers. */
export function isNumericField(name: string): boolean {
  return NUMERIC.test(name) || spectralFieldNm(name) !== undefined;
}
