import { uv1976Of, distanceOf, xyOf } from './chromaticity.ts';
import type { Chromaticity } from './chromaticity.ts';
import { colourRendering } from './colourRendering.ts';
import type { ColourRendering } from './colourRendering.ts';
import { correlatedTemperature } from './correlatedTemperature.ts';
import type { CorrelatedTemperature } from './correlatedTemperature.ts';
import { daylightIlluminant, nominalDaylight } from '../spectral/illuminant.ts';
import type { Illuminant } from '../spectral/illuminant.ts';
import type { SpectralGrid } from '../spectral/spectralGrid.ts';
import { gridEndNm } from '../spectral/spectralGrid.ts';
import { illuminantWhite } from '../spectral/xyzWeights.ts';
import type { Xyz } from '../colour/xyz.ts';

/** What a light is like. */
export interface LightFigures {
  /** Of a perfect reflector under it, Y = 100; 2° observer. */
  readonly white: Xyz;
  readonly xy: Chromaticity;
  /** Null where it is no white. */
  readonly temperature: CorrelatedTemperature | null;
  /** Distance in u', v' from the phases of daylight, 4000 to 25,000 K. */
  readonly fromDaylight: number;
  /** Distance in u', v' from D50, under which prints are compared (ISO 3664). */
  readonly fromD50: number;
  /** Null where it is too far from white. */
  readonly rendering: ColourRendering | null;
  /** Power below 400 nm over that from 400 to 700 nm; null where the spectrum does not reach below 360 nm. */
  readonly uvShare: number | null;
}

/** Figures of a light; `own` is its spectrum as it was measured, where that reaches farther than the tables. */
export function describeLight(
  light: Illuminant,
  own?: { readonly grid: SpectralGrid; readonly power: ArrayLike<number> },
): LightFigures {
  const white = illuminantWhite(light, '2deg');
  const at = uv1976Of(white);
  return {
    white,
    xy: xyOf(white),
    temperature: correlatedTemperature(white) ?? null,
    fromDaylight: daylightDistance(at),
    fromD50: distanceOf(at, uv1976Of(illuminantWhite(nominalDaylight(5000), '2deg'))),
    rendering: colourRendering(light) ?? null,
    uvShare: own === undefined ? null : (uvShare(own.grid, own.power) ?? null),
  };
}

/** Distances are looked for in reciprocal temperature, which is even along the locus. */
function daylightDistance(at: Chromaticity): number {
  const away = (mired: number): number =>
    distanceOf(at, uv1976Of(illuminantWhite(daylightIlluminant(1e6 / mired), '2deg')));
  let [best, step] = [100, 20];
  while (step > 0.01) {
    const around = [best - step, best, best + step].map((mired) => Math.min(250, Math.max(40, mired)));
    const nearest = around.reduce((a, b) => (away(b) < away(a) ? b : a));
    if (nearest === best) step /= 2;
    best = nearest;
  }
  return away(best);
}

/** Farther up, most of what excites a brightener is missing. */
const UV_START_NM = 360;
const VISIBLE_NM = 400;
const VISIBLE_END_NM = 700;

/** Share of ultraviolet power, by trapezoids; undefined where the spectrum begins too far up to tell. */
export function uvShare(grid: SpectralGrid, power: ArrayLike<number>): number | undefined {
  if (grid.startNm > UV_START_NM || gridEndNm(grid) < VISIBLE_END_NM) return undefined;
  const between = (from: number, to: number): number => {
    let sum = 0;
    for (let i = 0; i + 1 < grid.count; i++) {
      const a = Math.max(from, grid.startNm + i * grid.stepNm);
      const b = Math.min(to, grid.startNm + (i + 1) * grid.stepNm);
      if (b <= a) continue;
      const at = (nm: number): number => {
        const t = (nm - grid.startNm) / grid.stepNm - i;
        return power[i] + t * (power[i + 1] - power[i]);
      };
      sum += ((at(a) + at(b)) / 2) * (b - a);
    }
    return sum;
  };
  return between(grid.startNm, VISIBLE_NM) / between(VISIBLE_NM, VISIBLE_END_NM);
}
