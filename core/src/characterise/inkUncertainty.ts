import { createRandom, shuffle } from '../numerics/random.ts';
import { xyzToFitSpace } from './fitSpace.ts';
import { inkModelLab, residualData } from './inkModel.ts';
import type { InkModel } from './inkModel.ts';
import { takeRows } from './chooseSmoothing.ts';
import { SplineUncertainty } from './splineUncertainty.ts';
import type { SplinePoint } from './splineUncertainty.ts';
import { fitSpaceSlope } from './fitSpaceSlope.ts';
import type { Uncertainty, UncertainPoint } from './uncertainty.ts';

/** Rows the uncertainty is worked out from; more hardly change it. */
const MOST_ROWS = 1600;
const CALIBRATION_ROWS = 160;
/** Mean length of an error of three normal parts, over its root mean square. */
const MEAN_OF_NORM = Math.sqrt(8 / (3 * Math.PI));

/**
 * How sure a model is, in ΔE00, at any device value: the posterior of its residual spline, through the slope of ΔE00 at
 * the colour, scaled so that on average it agrees with the cross-validated errors.
 */
export class InkUncertainty implements Uncertainty {
  readonly #spline: SplineUncertainty;
  readonly #model: InkModel;
  readonly #scale: number;
  readonly #lab = new Float64Array(3);

  constructor(model: InkModel, seed = 1) {
    this.#model = model;
    const { patches, physics, smoothing } = model;
    const targets = new Float64Array(patches.xyz.length);
    xyzToFitSpace(patches.xyz, targets);
    const rows = shuffle(
      Array.from({ length: patches.counts.length }, (_, i) => i),
      createRandom(seed),
    );
    const data = takeRows(
      residualData(physics, patches.device, targets, patches.counts),
      rows.slice(0, MOST_ROWS),
    );
    this.#spline = new SplineUncertainty(data, smoothing);
    this.#scale = 1;
    this.#scale = this.#calibrate(rows.slice(0, Math.min(MOST_ROWS, CALIBRATION_ROWS)));
  }

  at(device: ArrayLike<number>): UncertainPoint {
    return { ...this.#spline.at(device), weight: this.#scale * this.#slope(device) };
  }

  /** Expected ΔE00 between model and device at a value, reading noise left out. */
  deltaEAt(device: ArrayLike<number>): number {
    const { weight, variance } = this.at(device);
    return MEAN_OF_NORM * weight * Math.sqrt(variance);
  }

  covariance(a: SplinePoint, b: SplinePoint): number {
    return this.#spline.covariance(a, b);
  }

  get noise(): number {
    return this.#spline.smoothing;
  }

  #slope(device: ArrayLike<number>): number {
    inkModelLab(this.#model, device, this.#lab);
    return fitSpaceSlope(this.#lab, this.#spline.amplitude);
  }

  /** A patch left out is off by its variance without it and its noise; both together must explain the errors. */
  #calibrate(rows: readonly number[]): number {
    const { patches, crossValidation } = this.#model;
    let found = 0;
    let expected = 0;
    for (const row of rows) {
      const point = this.at(patches.device.subarray(row * patches.channels, (row + 1) * patches.channels));
      const own = this.noise / patches.counts[row];
      // Variance without the row, from that with it: 1/v = 1/v₀ + 1/noise.
      const without = point.variance < own ? (point.variance * own) / (own - point.variance) : Infinity;
      if (!Number.isFinite(without)) continue;
      found += crossValidation.errors[row];
      expected += MEAN_OF_NORM * point.weight * Math.sqrt(without + own);
    }
    return expected > 0 ? found / expected : 1;
  }
}
