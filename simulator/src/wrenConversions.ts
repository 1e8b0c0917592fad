import type { Lab } from '@melto/core/colour/lab';
import { rgbToXyzMatrix } from '@melto/core/colour/rgbSpace';
import { adaptationMatrix } from '@melto/core/colour/chromaticAdaptation';
import { srgbDecode } from '@melto/core/colour/srgb';
import { WHITE_ICC, WHITE_SRGB } from '@melto/core/colour/whitePoints';
import { xyzToLab } from '@melto/core/colour/xyzToLab';
import { applyMatrix3, multiplyMatrix3 } from '@melto/core/numerics/matrix3';
import type { Matrix3, Vector3 } from '@melto/core/numerics/matrix3';
import { buildForwardGrid } from '@melto/core/profile/forwardGrid';
import type { ForwardGrid } from '@melto/core/profile/forwardGrid';
import { invertRgb } from '@melto/core/profile/invertRgb';
import type { SimulatedStockId } from './data/stocks.ts';
import type { WrenMode } from './rgbDriver.ts';
import { wrenTruthXyz } from './wrenTruth.ts';

/** Colour management that a driver does on its own when it was left on: file values to Lab to device values. */
export interface Conversion {
  readonly toXyz: Matrix3;
  readonly decode: (signal: number) => number;
  /** What is done to the colour before the device's profile. */
  readonly render: (lab: Lab) => Lab;
}

const D65_TO_D50 = adaptationMatrix(WHITE_SRGB, WHITE_ICC);
const SRGB = multiplyMatrix3(D65_TO_D50, rgbToXyzMatrix([0.64, 0.33], [0.3, 0.6], [0.15, 0.06], WHITE_SRGB));
const WIDE = multiplyMatrix3(
  D65_TO_D50,
  rgbToXyzMatrix([0.64, 0.33], [0.21, 0.71], [0.15, 0.06], WHITE_SRGB),
);

/** The conversions that Wren's driver offers. */
export const WREN_CONVERSIONS = {
  'office relative': { toXyz: SRGB, decode: srgbDecode, render: (lab) => lab },
  'office perceptual': {
    toXyz: SRGB,
    decode: srgbDecode,
    render: ([l, a, b]) => [l + 3.2 * Math.sin((Math.PI * l) / 100), 0.9 * a, 0.9 * b],
  },
  'wide relative': { toXyz: WIDE, decode: (signal) => Math.pow(signal, 563 / 256), render: (lab) => lab },
  'office vivid': {
    toXyz: SRGB,
    decode: srgbDecode,
    // More contrast in the middle and more chroma, less so where there is much of it already.
    render: ([l, a, b]) => {
      const more = 1 + 0.22 / (1 + Math.hypot(a, b) / 60);
      return [l - 4 * Math.sin((2 * Math.PI * l) / 100), more * a, more * b];
    },
  },
} as const satisfies Record<string, Conversion>;

export type WrenConversionName = keyof typeof WREN_CONVERSIONS;

const grids = new Map<string, ForwardGrid>();

/** Wren's own profile, as its maker would ship it: a coarse grid of the device's truth. */
function makersGrid(stock: SimulatedStockId, mode: WrenMode): ForwardGrid {
  const key = `${stock}/${mode}`;
  let grid = grids.get(key);
  if (grid === undefined) {
    const paper = wrenTruthXyz(stock, mode, [1, 1, 1]);
    grid = buildForwardGrid(3, 13, (device, out) => out.set(wrenTruthXyz(stock, mode, device)), [
      paper[0],
      paper[1],
      paper[2],
    ]);
    grids.set(key, grid);
  }
  return grid;
}

/** Device values that reach Wren when a conversion was left on; black point compensated. */
export function convertForWren(
  name: string,
  stock: SimulatedStockId,
  mode: WrenMode,
  rgb: Float64Array,
): Float64Array {
  const conversion: Conversion | undefined = (WREN_CONVERSIONS as Readonly<Record<string, Conversion>>)[name];
  if (conversion === undefined)
    throw new RangeError(`conversion "${name}", expected one of ${Object.keys(WREN_CONVERSIONS).join(', ')}`);
  const grid = makersGrid(stock, mode);
  let black = 100;
  for (let i = 0; i < grid.lab.length; i += 3) black = Math.min(black, grid.lab[i]);
  const blackY = ((black + 16) / 116) ** 3;
  const targets = new Float64Array(rgb.length);
  for (let i = 0; i < rgb.length; i += 3) {
    const linear = [0, 1, 2].map((axis) => conversion.decode(rgb[i + axis])) as unknown as Vector3;
    const xyz = applyMatrix3(conversion.toXyz, linear).map(
      (value, axis) => value * (1 - blackY) + blackY * WHITE_ICC[axis],
    );
    targets.set(conversion.render(xyzToLab([xyz[0], xyz[1], xyz[2]], WHITE_ICC)), i);
  }
  return invertRgb(grid, targets).device;
}
