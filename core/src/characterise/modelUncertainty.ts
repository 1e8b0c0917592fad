import { deltaE2000Of } from '../colour/deltaE2000.ts';
import { createRandom, shuffle } from '../numerics/random.ts';
import { gatherRows } from '../numerics/gatherRows.ts';
import { ErrorScale } from './errorScale.ts';
import { PhysicsLeverage } from './physicsLeverage.ts';
import { xyzToFitSpace } from './fitSpace.ts';
import { channelCount, drivenByLight } from '../device/process.ts';
import type { Process } from '../device/process.ts';
import { fitInkModel, inkModelLab } from './inkModel.ts';
import { residualData } from './inkResidual.ts';
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
/** Rows that tell how large errors are by place. */
const LEARNING_ROWS = 400;
/** Neither witness outvotes the other by more than this. */
const MOST_SHARE = 4;
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
  /** Variance of what is beneath the spline, in variances of one reading. */
  readonly leverage: (device: ArrayLike<number>) => number;
  /** The same model as it would be without a fifth of the patches, for each fifth. */
  readonly committee: readonly SplineModel['lab'][];
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
  const physicsLeverage = new PhysicsLeverage(model);
  return new ModelUncertainty(
    {
      ...model,
      data,
      lab: (device, out) => inkModelLab(model, device, out),
      leverage: (device) => physicsLeverage.at(device),
      committee: model.committee.map((part) => (device, out) => inkModelLab(part, device, out)),
    },
    seed,
  );
}

export function rgbUncertainty(model: RgbModel, seed?: number): ModelUncertainty {
  const data = rgbModelData(model.patches);
  return new ModelUncertainty(
    {
      ...model,
      data,
      lab: (device, out) => rgbModelLab(model, device, out),
      // Its plane is part of the spline.
      leverage: () => 0,
      committee: model.committee.map((spline) => (device, out) => rgbModelLab({ spline }, device, out)),
    },
    seed,
  );
}

/**
 * How sure a model is, in ΔE00, at any device value, by two witnesses that err apart, as their geometric mean: the
 * posterior of its spline and the leverage of its physics, in variances of one reading, times how large an error of one
 * reading is at this place, learned from the cross-validated errors; and how far the models of the cross-validation are
 * apart from it there (query by committee, Seung, Opper and Sompolinsky, COLT 1992), brought to the size of the first.
 */
export class ModelUncertainty implements Uncertainty {
  readonly #spline: SplineUncertainty;
  readonly #scale: ErrorScale;
  readonly #colour = new Float64Array(3);
  readonly #other = new Float64Array(3);
  /** Size of an error for how far the committee is apart. */
  readonly #perSpread: number;

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
    const learning = rows.slice(0, Math.min(MOST_ROWS, LEARNING_ROWS));
    const points = learning.map((row) => this.#spline.at(this.#deviceOf(row)));
    this.#scale = this.#learnScale(learning, points);
    this.#perSpread = this.#spreadScale(learning, points);
  }

  at(device: ArrayLike<number>): UncertainPoint {
    const { point, posterior, spread } = this.#look(device);
    return { ...point, weight: point.weight * this.#share(posterior, spread) };
  }

  /** Expected ΔE00 between model and device at a value, reading noise left out. */
  deltaEAt(device: ArrayLike<number>): number {
    const { posterior, spread } = this.#look(device);
    return posterior * this.#share(posterior, spread);
  }

  /** A device value as both witnesses see it: expected ΔE00 by the posterior, and how far the committee is apart. */
  #look(
    device: ArrayLike<number>,
    point: SplinePoint = this.#spline.at(device),
  ): {
    readonly point: UncertainPoint;
    readonly posterior: number;
    readonly spread: number;
  } {
    this.model.lab(device, this.#colour);
    const weight = this.#scale.at(device, this.#colour) / Math.sqrt(this.noise);
    const physics = this.noise * this.model.leverage(device);
    const posterior = MEAN_OF_NORM * weight * Math.sqrt(point.variance + physics);
    const [l, a, b] = this.#colour;
    let squares = 0;
    for (const lab of this.model.committee) {
      lab(device, this.#other);
      squares += deltaE2000Of(l, a, b, this.#other[0], this.#other[1], this.#other[2]) ** 2;
    }
    return {
      point: { ...point, weight },
      posterior,
      spread: Math.sqrt(squares / this.model.committee.length),
    };
  }

  /** What the posterior is multiplied by so that it becomes the mean of both. */
  #share(posterior: number, spread: number): number {
    if (!(posterior > 0)) return 1;
    const share = Math.sqrt((this.#perSpread * spread) / posterior);
    return Math.min(MOST_SHARE, Math.max(1 / MOST_SHARE, share));
  }

  /** The mean of both is as large as the posterior over what was read: spread alone knows of places, not of sizes. */
  #spreadScale(rows: readonly number[], points: readonly SplinePoint[]): number {
    let posterior = 0;
    let both = 0;
    for (const [i, row] of rows.entries()) {
      const seen = this.#look(this.#deviceOf(row), points[i]);
      posterior += seen.posterior;
      both += Math.sqrt(seen.posterior * seen.spread);
    }
    return both > 0 ? (posterior / both) ** 2 : 0;
  }

  #deviceOf(row: number): Float64Array {
    const { device, channels } = this.model.patches;
    return device.subarray(row * channels, (row + 1) * channels);
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

  /** A patch left out is off by its variance without it and its noise: what its error is beyond both, by place. */
  #learnScale(rows: readonly number[], points: readonly SplinePoint[]): ErrorScale {
    const { patches, crossValidation, leverage } = this.model;
    const { channels, counts } = patches;
    const used: number[] = [];
    const squares: number[] = [];
    for (const [i, row] of rows.entries()) {
      const own = 1 / counts[row];
      const spline = without(points[i].variance / this.noise, own);
      const expected = own + spline + without(leverage(this.#deviceOf(row)), own);
      if (!Number.isFinite(expected)) continue;
      used.push(row);
      squares.push(crossValidation.errors[row] ** 2 / expected);
    }
    const device = gatherRows(patches.device, used, channels);
    const lab = new Float64Array(3 * used.length);
    this.model.lab(device, lab);
    return new ErrorScale(channels, device, lab, Float64Array.from(squares));
  }
}

/** Variance without a row, from that with it: 1/v = 1/v₀ + 1/noise. */
function without(variance: number, noise: number): number {
  return variance < noise ? (variance * noise) / (noise - variance) : Infinity;
}
