import { deltaE2000 } from '../colour/deltaE2000.ts';
import type { Xyz } from '../colour/xyz.ts';
import { xyzToLab } from '../colour/xyzToLab.ts';
import type { Illuminant } from '../spectral/illuminant.ts';
import type { SpectralGrid } from '../spectral/spectralGrid.ts';
import { spectrumToXyz } from '../spectral/spectrumToXyz.ts';
import { createXyzWeights } from '../spectral/xyzWeights.ts';
import type { Observer, XyzWeights } from '../spectral/xyzWeights.ts';

/** A pair of colours under two lights. */
export interface Metamerism {
  /** ΔE00 under the reference light and under the other one. */
  readonly reference: number;
  readonly test: number;
  /**
   * Special metamerism index (CIE 15): ΔE00 under the other light once the second colour is scaled, X, Y and Z each, so
   * that the pair is the same under the reference light.
   */
  readonly index: number;
}

export interface SpectrumOn {
  readonly grid: SpectralGrid;
  /** Reflectance factors, one for each band. */
  readonly values: ArrayLike<number>;
}

/** How a pair of colours holds together from one light to another. */
export function metamerism(
  a: SpectrumOn,
  b: SpectrumOn,
  reference: Illuminant,
  test: Illuminant,
  observer: Observer,
): Metamerism {
  const under = (light: Illuminant): readonly [Xyz, Xyz, Xyz] => {
    const seen = ({ grid, values }: SpectrumOn): { readonly xyz: Xyz; readonly weights: XyzWeights } => {
      const weights = createXyzWeights(grid, light, observer);
      return { xyz: spectrumToXyz(weights, values), weights };
    };
    const first = seen(a);
    return [first.xyz, seen(b).xyz, first.weights.white];
  };
  const [aRef, bRef, whiteRef] = under(reference);
  const [aTest, bTest, whiteTest] = under(test);
  const scaled: Xyz = [0, 1, 2].map((axis) => (bTest[axis] * aRef[axis]) / bRef[axis]) as unknown as Xyz;
  const apart = (one: Xyz, other: Xyz, white: Xyz): number =>
    deltaE2000(xyzToLab(one, white), xyzToLab(other, white));
  return {
    reference: apart(aRef, bRef, whiteRef),
    test: apart(aTest, bTest, whiteTest),
    index: apart(aTest, scaled, whiteTest),
  };
}
