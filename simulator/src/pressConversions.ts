import { genericPressLab } from '@melto/core/charts/genericPress';
import type { Lab } from '@melto/core/colour/lab';
import { SRGB_TO_XYZ_D50, srgbDecode } from '@melto/core/colour/srgb';
import { WHITE_ICC } from '@melto/core/colour/whitePoints';
import { xyzToLab } from '@melto/core/colour/xyzToLab';
import { applyMatrix3 } from '@melto/core/numerics/matrix3';
import { buildForwardGrid } from '@melto/core/profile/forwardGrid';
import type { ForwardGrid } from '@melto/core/profile/forwardGrid';
import { invertRgb } from '@melto/core/profile/invertRgb';
import type { SimulatedStockId } from './data/stocks.ts';
import { deviceTruthXyz } from './deviceTruth.ts';
import type { SimulatedDevice } from './simulatedDevice.ts';

/** Colour management that a front end does when it was left on: document CMYK to Lab, Lab to its own inks. */
interface PressConversion {
  /** Media-relative Lab that the document is taken to mean. */
  readonly source: (cmyk: ArrayLike<number>, at: number) => Lab;
  /** Black that is used for a lightness and chroma, 0..1. */
  readonly black: (lab: Lab) => number;
}

const PAPER = genericPressLab([0, 0, 0, 0]);

/** Generic coated offset, paper taken as white, black as L* 12. */
function coated(cmyk: ArrayLike<number>, at: number): Lab {
  const [l, a, b] = genericPressLab(cmyk, at);
  const share = l / PAPER[0];
  return [12 + (88 * (l - 14)) / (PAPER[0] - 14), a - PAPER[1] * share, b - PAPER[2] * share];
}

/** A softer source with more gain and less chroma, as on uncoated paper. */
function uncoated(cmyk: ArrayLike<number>, at: number): Lab {
  const more = [0, 1, 2, 3].map((i) => cmyk[at + i] + 0.16 * cmyk[at + i] * (1 - cmyk[at + i]));
  const [l, a, b] = coated(more, 0);
  return [30 + 0.7 * l, 0.78 * a, 0.78 * b];
}

/** By way of screen RGB, as office programs do. */
function byRgb(cmyk: ArrayLike<number>, at: number): Lab {
  const linear = [0, 1, 2].map((i) => srgbDecode((1 - cmyk[at + i]) * (1 - cmyk[at + 3])));
  const [l, a, b] = xyzToLab(applyMatrix3(SRGB_TO_XYZ_D50, [linear[0], linear[1], linear[2]]), WHITE_ICC);
  return [14 + 0.86 * l, 0.8 * a, 0.8 * b];
}

function blackFrom(start: number, most: number, exponent: number): (lab: Lab) => number {
  return ([l, a, b]) => {
    const depth = Math.max(0, (start - l) / start);
    return most * depth ** exponent * Math.exp(-Math.hypot(a, b) / 40);
  };
}

export const PRESS_CONVERSIONS = {
  'coated to press': { source: coated, black: blackFrom(75, 0.95, 1.4) },
  'coated to press, little black': { source: coated, black: blackFrom(45, 0.8, 1.6) },
  'uncoated to press': { source: uncoated, black: blackFrom(70, 0.9, 1.3) },
  'office by RGB': { source: byRgb, black: blackFrom(85, 1, 1.2) },
} as const satisfies Record<string, PressConversion>;

/** Black levels between which the inks of a conversion are blended. */
const LEVELS = 7;
const POINTS = 9;
const grids = new Map<string, readonly ForwardGrid[]>();

function levelGrids(device: SimulatedDevice, stock: SimulatedStockId, mode: string): readonly ForwardGrid[] {
  const key = `${device.id}/${stock}/${mode}`;
  let found = grids.get(key);
  if (found === undefined) {
    const paper = deviceTruthXyz(device, stock, mode, [0, 0, 0, 0]);
    found = Array.from({ length: LEVELS }, (_, level) =>
      buildForwardGrid(
        3,
        POINTS,
        (cmy, out) => {
          const values = new Float64Array((cmy.length / 3) * 4);
          for (let i = 0; i * 3 < cmy.length; i++)
            values.set([cmy[3 * i], cmy[3 * i + 1], cmy[3 * i + 2], level / (LEVELS - 1)], 4 * i);
          out.set(deviceTruthXyz(device, stock, mode, values));
        },
        [paper[0], paper[1], paper[2]],
      ),
    );
    grids.set(key, found);
  }
  return found;
}

/** Device values that reach the inks when a front end converts a chart's values. */
export function convertForPress(
  device: SimulatedDevice,
  name: string,
  stock: SimulatedStockId,
  mode: string,
  cmyk: Float64Array,
): Float64Array {
  const conversion: PressConversion | undefined = (
    PRESS_CONVERSIONS as Readonly<Record<string, PressConversion>>
  )[name];
  if (conversion === undefined)
    throw new RangeError(
      `conversion "${name}", expected one of ${Object.keys(PRESS_CONVERSIONS).join(', ')}`,
    );
  const count = cmyk.length / 4;
  const targets = new Float64Array(count * 3);
  const blacks = new Float64Array(count);
  for (let i = 0; i < count; i++) {
    const lab = conversion.source(cmyk, 4 * i);
    targets.set(lab, 3 * i);
    blacks[i] = Math.min(1, conversion.black(lab));
  }
  const byLevel = levelGrids(device, stock, mode).map((grid) => invertRgb(grid, targets).device);
  const out = new Float64Array(cmyk.length);
  for (let i = 0; i < count; i++) {
    const at = blacks[i] * (LEVELS - 1);
    const low = Math.min(LEVELS - 2, Math.floor(at));
    for (let ink = 0; ink < 3; ink++) {
      const [a, b] = [byLevel[low][3 * i + ink], byLevel[low + 1][3 * i + ink]];
      out[4 * i + ink] = a + (at - low) * (b - a);
    }
    out[4 * i + 3] = blacks[i];
  }
  return out;
}
