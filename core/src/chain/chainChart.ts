import type { NamedPatches } from '../charts/namedPatches.ts';
import { channelCount, CMYK, drivenByLight, RGB } from '../device/process.ts';
import type { Process } from '../device/process.ts';

const LEVELS = [0, 85, 170, 255] as const;
/** Greys between those of the cube: black point and tone show in them. */
const GREYS = [16, 34, 51, 68, 102, 119, 136, 153, 187, 204, 221, 238] as const;
/** The white of the picture is in the cube once; its copies say what the paper is. */
const WHITES = 2;

/** The picture of sRGB that checks a chain: an even cube, more greys, more white. Values 0..1 in whole 8-bit levels. */
export function chainChart(): NamedPatches {
  const levels: (readonly number[])[] = [];
  for (const r of LEVELS) for (const g of LEVELS) for (const b of LEVELS) levels.push([r, g, b]);
  for (const grey of GREYS) levels.push([grey, grey, grey]);
  return patchesOf('sRGB', levels, RGB);
}

const INK_LEVELS = [0, 128, 255] as const;
/** With a black of half its ink: dark colours that stay within what presses carry. */
const WITH_BLACK = [0, 153] as const;
const HALF_BLACK = 128;
const BLACKS = [26, 51, 77, 102, 153, 179, 204, 230, 255] as const;
/** Greys of three inks, cyan a little fuller. */
const INK_GREYS = [40, 80, 120, 160, 200] as const;
/** Shadows of all inks, up to 300 %: black points show in them. */
const SHADOWS = [
  [204, 166, 166, 230],
  [153, 128, 128, 204],
  [178, 153, 153, 255],
] as const;

/** The picture of CMYK that checks a chain: an even cube of inks, with half a black, blacks, greys, shadows, white. */
export function inkChainChart(): NamedPatches {
  const levels: (readonly number[])[] = [];
  for (const c of INK_LEVELS)
    for (const m of INK_LEVELS) for (const y of INK_LEVELS) levels.push([c, m, y, 0]);
  for (const c of WITH_BLACK)
    for (const m of WITH_BLACK) for (const y of WITH_BLACK) levels.push([c, m, y, HALF_BLACK]);
  for (const black of BLACKS) levels.push([0, 0, 0, black]);
  for (const grey of INK_GREYS) levels.push([grey, Math.round(0.8 * grey), Math.round(0.8 * grey), 0]);
  levels.push(...SHADOWS);
  return patchesOf('CMYK', levels, CMYK);
}

function patchesOf(name: string, colours: readonly (readonly number[])[], process: Process): NamedPatches {
  const white = process.channels.map(() => (drivenByLight(process) ? 255 : 0));
  const levels = [...colours, ...Array.from({ length: WHITES }, () => white)];
  return {
    names: levels.map((values) => `${name} ${values.join(' ')}`),
    device: Float64Array.from(levels.flat(), (level) => level / 255),
  };
}

/** Half an 8-bit level. */
const HALF_LEVEL = 0.5 / 255;

/** Rows of the picture's white. */
export function whiteRows(values: ArrayLike<number>, process: Process): number[] {
  const channels = channelCount(process);
  const white = drivenByLight(process) ? 1 : 0;
  const rows: number[] = [];
  for (let row = 0; row < values.length / channels; row++) {
    let off = 0;
    for (let c = 0; c < channels; c++) off = Math.max(off, Math.abs(values[channels * row + c] - white));
    if (off < HALF_LEVEL) rows.push(row);
  }
  return rows;
}
