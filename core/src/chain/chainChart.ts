import type { NamedPatches } from '../charts/namedPatches.ts';

const LEVELS = [0, 85, 170, 255] as const;
/** Greys between those of the cube: black point and tone show in them. */
const GREYS = [16, 34, 51, 68, 102, 119, 136, 153, 187, 204, 221, 238] as const;
/** The white of the picture is in the cube once; its copies say what the paper is. */
const WHITES = 2;

/** The picture that checks a chain: an even cube of sRGB, more greys, more white. Values 0..1 in whole 8-bit levels. */
export function chainChart(): NamedPatches {
  const levels: (readonly number[])[] = [];
  for (const r of LEVELS) for (const g of LEVELS) for (const b of LEVELS) levels.push([r, g, b]);
  for (const grey of GREYS) levels.push([grey, grey, grey]);
  for (let i = 0; i < WHITES; i++) levels.push([255, 255, 255]);
  return {
    names: levels.map((rgb) => `sRGB ${rgb.join(' ')}`),
    device: Float64Array.from(levels.flat(), (level) => level / 255),
  };
}

/** Rows of the picture's white. */
export function whiteRows(rgb: ArrayLike<number>): number[] {
  const rows: number[] = [];
  for (let i = 0; i + 2 < rgb.length; i += 3)
    if (Math.min(rgb[i], rgb[i + 1], rgb[i + 2]) > ALMOST_WHITE) rows.push(i / 3);
  return rows;
}

/** Half a level below white. */
const ALMOST_WHITE = 254.5 / 255;
