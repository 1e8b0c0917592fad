import { deltaE2000 } from '../colour/deltaE2000.ts';
import type { Lab } from '../colour/lab.ts';
import { createRandom } from '../numerics/random.ts';
import { mean, percentile } from '../numerics/statistics.ts';
import type { ForwardGrid } from '../profile/forwardGrid.ts';
import { deviceTable } from '../profile/manyInkTable.ts';
import { darkestNeutral, invertInks } from '../profile/invertInks.ts';
import type { Separation } from './separation.ts';
import { inkOverArea } from './separationPreview.ts';

/** What a separation costs: ink over pictures, and how its greys hold when the inks vary. */
export interface SeparationCost {
  /** Mean of each ink over the area of the pictures, 1 = 100 %. */
  readonly ink: readonly number[];
  /** Most ink anywhere in them. */
  readonly most: number;
  /** ΔE00 that greys move by when each ink varies. */
  readonly greys: { readonly mean: number; readonly p95: number };
}

/** Greys that are looked at, L* above the darkest neutral in steps of this. */
const GREY_STEP = 5;
const LIGHTEST = 95;
const PRINTS = 60;

/**
 * @param picture Lab of the pictures' colours, row-major × 3, already within the device's lightness.
 * @param shares of their area, summing to 1.
 * @param variation standard deviation of each ink's amount from print to print, as a share of itself.
 */
export function separationCost(
  grid: ForwardGrid,
  separation: Separation,
  picture: Float64Array,
  shares: Float64Array,
  variation: number,
  seed = 1,
): SeparationCost {
  const darkest = darkestNeutral(grid, separation);
  const inks = invertInks(grid, picture, separation, darkest).device;
  const { mean: ink, most } = inkOverArea(inks, shares, grid.channels);
  return {
    ink: [...ink],
    most,
    greys: greysThatVary(grid, separation, darkest, variation, seed),
  };
}

function greysThatVary(
  grid: ForwardGrid,
  separation: Separation,
  darkest: number,
  variation: number,
  seed: number,
): SeparationCost['greys'] {
  const steps = Math.max(1, Math.floor((LIGHTEST - darkest) / GREY_STEP));
  const asked = new Float64Array(3 * steps);
  for (let i = 0; i < steps; i++) asked[3 * i] = darkest + GREY_STEP * (i + 1);
  const { device } = invertInks(grid, asked, separation, darkest);
  const table = deviceTable(grid);
  const n = grid.channels;
  const labOf = (inks: ArrayLike<number>): Lab => {
    table.evaluate(inks);
    return [table.lab[0], table.lab[1], table.lab[2]];
  };
  const rows = Array.from({ length: steps }, (_, i) => device.slice(n * i, n * (i + 1)));
  const still = rows.map(labOf);
  const random = createRandom(seed);
  const moved: number[] = [];
  for (let print = 0; print < PRINTS; print++) {
    // All of a print is made with the same inks.
    const factors = Array.from({ length: n }, () => 1 + variation * random.normal());
    rows.forEach((row, i) =>
      moved.push(deltaE2000(still[i], labOf(row.map((value, c) => Math.min(1, value * factors[c]))))),
    );
  }
  return { mean: mean(moved), p95: percentile(moved, 95) };
}
