import { createRandom, shuffle } from '../numerics/random.ts';
import { fitSpaceSlope } from './fitSpaceSlope.ts';
import { xyzToFitSpace } from './fitSpace.ts';
import { channelCount, drivenByLight } from '../device/process.ts';
import type { Process } from '../device/process.ts';
import { fitInkModel, inkModelLab, residualData } from './inkModel.ts';
import type { InkModel } from './inkModel.ts';
import type { MergedPatches } from './mergeRepeats.ts';
import type { SplineData } from './projectedKernel.ts';
import { fitRgbModel, rgbModelData, rgbModelLab } from './rgbModel.ts';
import type { CrossValidation, RgbModel } from './rgbModel.ts';
import { takeRows } from './chooseSmoothing.ts';
import { SplineUncertainty } from './splineUncertainty.ts';
import type { SplinePoint } from './splineUncertainty.ts';
import type { Uncertainty, UncertainPoint } from './uncertainty.ts';

/** Rows the uncertainty is worked out from; more hardly change it. */
const MOST_ROWS = 1600;
const CALIBRATION_ROWS = 160;
/** Mean length of an error of three normal parts, over its root mean square. */
const MEAN_OF_NORM = Math.sqrt(8 / (3 * Math.PI));

/** A fitted model as its uncertainty needs it. */
interface SplineModel {
  readonly patches: MergedPatches;
  readonly smoothing: number;
  readonly crossValidation: CrossValidation;
  /** What the spline was fitted to. */
  readonly data: SplineData;
  readonly lab: (device: ArrayLike<number>, out: Float64Array) => void;
}

/** Fits a model to a reading of an RGB or an ink device, and tells how sure it is. */
export function uncertaintyOf(
  process: Process,
  device: Float64Array,
  xyz: Float64Array,
  onProgress?: (fraction: number) => void,
): ModelUncertainty {
  return drivenByLight(process)
    ? rgbUncertainty(fitRgbModel(device, xyz))
    : inkUncertainty(fitInkModel(device, channelCount(process), xyz, 1, onProgress));
}

export function inkUncertainty(model: InkModel, seed?: number): ModelUncertainty {
  const { patches, physics } = model;
  const targets = new Float64Array(patches.xyz.length);
  xyzToFitSpace(patches.xyz, targets);
  const data = residualData(physics, patches.device, targets, patches.counts);
  return new ModelUncertainty(
    { ...model, data, lab: (device, out) => inkModelLab(model, device, out) },
    seed,
  );
}

export function rgbUncertainty(model: RgbModel, seed?: number): ModelUncertainty {
  const data = rgbModelData(model.patches);
  return new ModelUncertainty(
    { ...model, data, lab: (device, out) => rgbModelLab(model, device, out) },
    seed,
  );
}

/**
 * How sure a model is, in ΔE00, at any device value: the posterior of its spline, through the slope of ΔE00 at the
 * colour, scaled so that on average it agrees with the cross-validated errors.
 */
export class ModelUncertainty implements Uncertainty {
  readonly #spline: SplineUncertainty;
  readonly #scale: number;
  readonly #colour = new Float64Array(3);

  constructor(
    private readonly model: SplineModel,
    seed = 1,
  ) {
    const { data, smoothing } = model;
    const rows = shuffle(
      Array.from({ length: data.counts.length }, (_, i) => i),
      createRandom(seed),
    );
    this.#spline = new SplineUncertainty(takeRows(data, rows.slice(0, MOST_ROWS)), smoothing);
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

  /** Colours of device rows by the model, Lab (D50/2°). */
  lab(device: ArrayLike<number>, out: Float64Array): void {
    this.model.lab(device, out);
  }

  covariance(a: SplinePoint, b: SplinePoint): number {
    return this.#spline.covariance(a, b);
  }

  get noise(): number {
    return this.#spline.smoothing;
  }

  #slope(device: ArrayLike<number>): number {
    this.model.lab(device, this.#colour);
    return fitSpaceSlope(this.#colour, this.#spline.amplitude);
  }

  /** A patch left out is off by its variance without it and its noise; both together must explain the errors. */
  #calibrate(rows: readonly number[]): number {
    const { patches, crossValidation } = this.model;
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
