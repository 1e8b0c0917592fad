import { inkModelXyz } from '../characterise/inkModel.ts';
import type { FittedInks } from '../characterise/inkModel.ts';
import { buildForwardGrid } from '../profile/forwardGrid.ts';
import type { ForwardGrid } from '../profile/forwardGrid.ts';
import { darkestNeutral, invertInks } from '../profile/invertInks.ts';
import { manyInkGrid } from '../profile/manyInkGrid.ts';
import { deviceTable } from '../profile/manyInkTable.ts';
import type { ExtraInks } from './extraInks.ts';
import type { Separation } from './separation.ts';

const GRID = 9;
const MANY_INK_GRID = 5;
const AXIS = 41;
export const LEAF = { lightness: 32, chroma: 32, most: 90 } as const;

/** What a separation does, at once: along the greys, over a leaf of one hue, and to a picture. */
export interface SeparationPreview {
  /** L* asked, evenly from 0 to 100, with the inks; row-major × ink. */
  readonly greys: { readonly asked: Float64Array; readonly inks: Float64Array };
  /** Lab printed and inks at each lightness (from 100 down) and chroma (from 0 up); row-major. */
  readonly leaf: { readonly lab: Float64Array; readonly inks: Float64Array; readonly inGamut: Uint8Array };
  /** Mean of each ink over the picture's area, 1 = 100 %; the most anywhere. Nought without a picture. */
  readonly picture: { readonly mean: Float64Array; readonly most: number };
  readonly blackLightness: number;
}

/**
 * A coarse table of a model, for previews.
 * @param extra places of the extra inks of more than four.
 */
export function previewGrid(model: FittedInks, extra?: ExtraInks): ForwardGrid {
  if (extra !== undefined) return manyInkGrid(model, MANY_INK_GRID, extra);
  const paper = new Float64Array(3);
  inkModelXyz(model, [0, 0, 0, 0], paper);
  return buildForwardGrid(4, GRID, (device, out) => inkModelXyz(model, device, out), [
    paper[0],
    paper[1],
    paper[2],
  ]);
}

/**
 * @param picture Lab of a picture's colours, row-major × 3, already within the device's lightness.
 * @param shares of its area, summing to 1.
 */
export function previewSeparation(
  grid: ForwardGrid,
  separation: Separation,
  hueDeg: number,
  picture: Float64Array,
  shares: Float64Array,
): SeparationPreview {
  const darkest = darkestNeutral(grid, separation);
  const asked = Float64Array.from({ length: AXIS }, (_, i) => (100 * i) / (AXIS - 1));
  const greys = new Float64Array(AXIS * 3);
  asked.forEach((lightness, i) => (greys[3 * i] = lightness));
  const leaf = leafColours(hueDeg);
  const leafInks = invertInks(grid, leaf, separation, darkest);
  const table = deviceTable(grid);
  const n = grid.channels;
  const lab = new Float64Array(leaf.length);
  for (let i = 0; i * 3 < leaf.length; i++) {
    table.evaluate(leafInks.device.subarray(n * i, n * (i + 1)));
    lab.set(table.lab, 3 * i);
  }
  const inks = invertInks(grid, picture, separation, darkest).device;
  return {
    greys: { asked, inks: invertInks(grid, greys, separation, darkest).device },
    leaf: {
      lab,
      inks: leafInks.device,
      inGamut: Uint8Array.from(leafInks.distance, (distance) => (distance < 2 ? 1 : 0)),
    },
    picture: inkOverArea(inks, shares, n),
    blackLightness: darkest,
  };
}

/** Mean of each ink over an area, and the most of all together anywhere in it. */
export function inkOverArea(
  inks: Float64Array,
  shares: Float64Array,
  count: number,
): { readonly mean: Float64Array; readonly most: number } {
  const mean = new Float64Array(count);
  let most = 0;
  shares.forEach((share, i) => {
    let total = 0;
    for (let ink = 0; ink < count; ink++) {
      mean[ink] += share * inks[count * i + ink];
      total += inks[count * i + ink];
    }
    most = Math.max(most, total);
  });
  return { mean, most };
}

function leafColours(hueDeg: number): Float64Array {
  const out = new Float64Array(LEAF.lightness * LEAF.chroma * 3);
  const hue = (hueDeg * Math.PI) / 180;
  for (let row = 0; row < LEAF.lightness; row++)
    for (let column = 0; column < LEAF.chroma; column++) {
      const chroma = (LEAF.most * column) / (LEAF.chroma - 1);
      out.set(
        [100 - (100 * (row + 0.5)) / LEAF.lightness, chroma * Math.cos(hue), chroma * Math.sin(hue)],
        3 * (row * LEAF.chroma + column),
      );
    }
  return out;
}
