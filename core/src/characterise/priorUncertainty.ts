import { fitSpaceSlope } from './fitSpaceSlope.ts';
import { SplineUncertainty } from './splineUncertainty.ts';
import type { SplinePoint } from './splineUncertainty.ts';
import type { Uncertainty, UncertainPoint } from './uncertainty.ts';

/** Smoothing that models of real and simulated ink devices came to, in the units of the kernel. */
const TYPICAL_SMOOTHING = 3e-3;
const EVEN = [1, 1, 1] as const;

/** How sure one would be of a device once certain patches are read, before any is: for a chart's first design. */
export class PriorUncertainty implements Uncertainty {
  readonly noise: number;
  readonly #spline: SplineUncertainty;

  /**
   * @param device distinct rows that will be read whatever else is, row-major × inks.
   * @param counts readings of each.
   * @param lab what is known of the device's colours: an earlier profile, or a generic press.
   */
  constructor(
    device: Float64Array,
    private readonly inks: number,
    counts: Float64Array,
    private readonly lab: (device: ArrayLike<number>) => ArrayLike<number>,
    smoothing = TYPICAL_SMOOTHING,
  ) {
    this.noise = smoothing;
    this.#spline = new SplineUncertainty(
      { inputs: inks, outputs: 1, centres: device, targets: new Float64Array(device.length / inks), counts },
      smoothing,
    );
  }

  at(device: ArrayLike<number>): UncertainPoint {
    if (device.length !== this.inks) throw new RangeError(`${device.length} values of ${this.inks} inks`);
    return { ...this.#spline.at(device), weight: fitSpaceSlope(this.lab(device), EVEN) };
  }

  covariance(a: SplinePoint, b: SplinePoint): number {
    return this.#spline.covariance(a, b);
  }
}
