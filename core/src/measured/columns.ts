import { countedProcess, NO_INKS, processOfLetters } from '../cgats/fieldNames.ts';
import { CMYK, MOST_CHANNELS, RGB } from '../device/process.ts';
import type { Process } from '../device/process.ts';

export const MODES = ['M0', 'M1', 'M2', 'M3'] as const;
export type Mode = (typeof MODES)[number];

/** What a column of measurements holds, as far as its name tells. */
export type ColumnMeaning =
  | { readonly kind: 'id' | 'name' | 'place' | 'page' | 'strip' | 'row' | 'column' }
  | { readonly kind: 'device'; readonly process: Process; readonly channel: number }
  | { readonly kind: 'spectral'; readonly nm: number; readonly mode?: Mode }
  | { readonly kind: 'colour'; readonly space: ColourSpace; readonly axis: number; readonly mode?: Mode }
  | { readonly kind: 'density'; readonly name: string }
  /** Wavelength and value in columns of their own, pair by pair. */
  | { readonly kind: 'wavelength' | 'reflectance' | 'spread' | 'unknown' };

export type ColourSpace = 'lab' | 'xyz' | 'lch';

const WORDS: readonly (readonly [RegExp, 'id' | 'name' | 'place' | 'page' | 'strip' | 'row' | 'column'])[] = [
  [/^(sample|patch)?_?(id|no|nr|number)$/, 'id'],
  [/^(index|sample|patch)$/, 'id'],
  [/^(sample|patch|colou?r)_?name$|^name$|^label$/, 'name'],
  [/^(sample_)?(loc(ation)?|position|pos|place|patch_loc)$/, 'place'],
  [/^page(_?(no|number))?$/, 'page'],
  [/^strip(_?(no|number))?$/, 'strip'],
  [/^row(_?name)?$/, 'row'],
  [/^col(umn)?(_?name)?$/, 'column'],
];

const AXES: Readonly<Record<ColourSpace, readonly (readonly string[])[]>> = {
  lab: [
    ['LAB_L', 'CIE_L', 'CIELAB_L', 'L*', 'L'],
    ['LAB_A', 'CIE_A', 'CIELAB_A', 'A*', 'A'],
    ['LAB_B', 'CIE_B', 'CIELAB_B', 'B*', 'B'],
  ],
  xyz: [
    ['XYZ_X', 'CIE_X', 'X'],
    ['XYZ_Y', 'CIE_Y', 'Y'],
    ['XYZ_Z', 'CIE_Z', 'Z'],
  ],
  lch: [['LCH_L'], ['LCH_C', 'LAB_C', 'C*', 'C*AB', 'CHROMA'], ['LCH_H', 'LAB_H', 'H°', 'HAB', 'H*', 'HUE']],
};

const COLOURS = new Map(
  (Object.entries(AXES) as [ColourSpace, readonly (readonly string[])[]][]).flatMap(([space, axes]) =>
    axes.flatMap((names, axis) => names.map((name) => [name, { space, axis }] as const)),
  ),
);

const SPECTRAL =
  /^(?:SPECTRAL_?(?:NM_?|PCT_?|DEC_?)?|SPEC_?(?:NM_?)?|NM_?|R_?|REFL_?|LAMBDA_?)?(\d{3,4})(?:\.0+)?_?(?:NM)?$/;
const SPREAD = /^(STDEV|STD_?DEV|SD|MEAN_DE|CHI|DE|DELTA_?E)(_|$)/;
const DENSITY =
  /^D(?:EN(?:SITY)?)?_(RED|GREEN|BLUE|VIS|VISUAL|MAJOR_FILTER|CYAN|MAGENTA|YELLOW|BLACK|[RGBVCMYK])$/;

/** What a column holds: names as ISO 28178 has them, and the ways in which programs, tables and people write them. */
export function columnOf(name: string): ColumnMeaning {
  const { plain, mode } = withoutMode(name);
  const lower = plain.toLowerCase();
  for (const [pattern, kind] of WORDS) if (pattern.test(lower)) return { kind };
  if (/^(SPECTRAL_NM|NM|WAVELENGTH)$/.test(plain)) return { kind: 'wavelength' };
  if (/^(SPECTRAL_(PCT|DEC)|REFLECTANCE)$/.test(plain)) return { kind: 'reflectance' };
  const spectral = SPECTRAL.exec(plain);
  if (spectral !== null) {
    const nm = Number(spectral[1]);
    if (nm >= 300 && nm <= 1100) return { kind: 'spectral', nm, mode };
  }
  const colour = COLOURS.get(plain);
  if (colour !== undefined) return { kind: 'colour', ...colour, mode };
  if (SPREAD.test(plain)) return { kind: 'spread' };
  const density = DENSITY.exec(plain);
  if (density !== null) return { kind: 'density', name: density[1] };
  return deviceColumn(plain) ?? { kind: 'unknown' };
}

/** A measurement mode may stand before or after the name: `M1_LAB_L`, `LAB_L_M1`, `Lab_L (M1)`. */
function withoutMode(name: string): { readonly plain: string; readonly mode?: Mode } {
  const upper = name
    .trim()
    .toUpperCase()
    .replace(/[\s-]+/g, '_');
  const before = /^(M[0-3])[_:]+(.+)$/.exec(upper);
  const after = /^(.+?)_*[([]?_*(M[0-3])[)\]]?$/.exec(upper);
  if (before !== null) return { plain: before[2], mode: before[1] as Mode };
  if (after !== null) return { plain: after[1], mode: after[2] as Mode };
  return { plain: upper.replace(/_*[([]%?[)\]]$/, '') };
}

const LONG_INKS: Readonly<Record<string, number>> = { CYAN: 0, MAGENTA: 1, YELLOW: 2, BLACK: 3, KEY: 3 };
const LIGHTS: Readonly<Record<string, number>> = { RED: 0, GREEN: 1, BLUE: 2 };

function deviceColumn(plain: string): ColumnMeaning | undefined {
  const counted = /^([1-9])_?CLR_(\d)$/.exec(plain);
  if (counted !== null) {
    const count = Number(counted[1]);
    const channel = Number(counted[2]) - 1;
    if (count > MOST_CHANNELS || channel < 0 || channel >= count) return undefined;
    return {
      kind: 'device',
      process: countedProcess(count),
      channel,
    };
  }
  if (plain in LONG_INKS) return { kind: 'device', process: CMYK, channel: LONG_INKS[plain] };
  if (plain in LIGHTS) return { kind: 'device', process: RGB, channel: LIGHTS[plain] };
  const [, prefix = '', letter = ''] = /^([A-Z]{1,8})_([A-Z])$/.exec(plain) ?? [];
  if (
    prefix === '' ||
    NO_INKS.has(prefix) ||
    !prefix.includes(letter) ||
    new Set(prefix).size < prefix.length
  )
    return undefined;
  const process = processOfLetters(prefix);
  return { kind: 'device', process, channel: prefix.indexOf(letter) };
}

/**
 * What the columns of a table hold, together: letters alone (`C M Y K`, `R G B`, `L a b`, `X Y Z`) are told by those
 * beside them.
 */
export function columnsOf(names: readonly string[]): ColumnMeaning[] {
  const meanings = names.map(columnOf);
  const letters = names.map((name) => name.trim().toUpperCase());
  const at = (set: string): number[] => [...set].map((letter) => letters.indexOf(letter));
  const put = (set: string, process: Process): void => {
    const places = at(set);
    if (places.some((place) => place < 0)) return;
    places.forEach((place, channel) => {
      meanings[place] = { kind: 'device', process, channel };
    });
  };
  // A, B and Y stand for colours where L or X and Z are beside them, for inks where the other inks are.
  if (!letters.includes('L'))
    for (const letter of ['A', 'B']) unknown(meanings, letters.indexOf(letter), letter);
  put('RGB', RGB);
  put('CMYK', CMYK);
  const xyz = at('XYZ');
  if (xyz.some((place) => place < 0))
    for (const letter of ['X', 'Z', ...(letters.includes('C') ? [] : ['Y'])])
      unknown(meanings, letters.indexOf(letter), letter);
  return meanings;
}

/** A letter that stands for nothing by itself. */
function unknown(meanings: ColumnMeaning[], place: number, letter: string): void {
  if (place >= 0 && meanings[place].kind === 'colour' && letter.length === 1)
    meanings[place] = { kind: 'unknown' };
}
