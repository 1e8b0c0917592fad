import { choleskyFactor } from '../numerics/cholesky.ts';
import { solveLower } from '../numerics/dot.ts';
import type { FittedInks } from './inkModel.ts';

/** Keeps the system solvable where a corner was never printed. */
const RIDGE = 1e-3;

/**
 * Variance that the mixing physics have at a device value from the noise of what was read, in variances of one reading:
 * the leverage of a linear model of as many unknowns, a colour for each overprint and a bump of each ink's tone curve
 * for each of its bends.
 */
export class PhysicsLeverage {
  readonly #factor: Float64Array;
  readonly #width: number;

  constructor(private readonly model: Pick<FittedInks, 'inks' | 'freedom' | 'patches'>) {
    const { inks, freedom, patches } = model;
    const width = (1 << inks) + inks * freedom.bends;
    const normal = new Float64Array(width * width);
    const basis = new Float64Array(width);
    for (let i = 0; i < width; i++) normal[i * width + i] = RIDGE;
    for (let row = 0; row < patches.counts.length; row++) {
      this.#basis(patches.device.subarray(row * inks, (row + 1) * inks), basis);
      for (let i = 0; i < width; i++) {
        if (basis[i] === 0) continue;
        for (let j = 0; j <= i; j++) normal[i * width + j] += patches.counts[row] * basis[i] * basis[j];
      }
    }
    if (!choleskyFactor(normal, width)) throw new Error('the leverage of the physics has no solution');
    this.#factor = normal;
    this.#width = width;
  }

  at(device: ArrayLike<number>): number {
    const basis = new Float64Array(this.#width);
    this.#basis(device, basis);
    solveLower(this.#factor, this.#width, basis);
    return basis.reduce((sum, value) => sum + value * value, 0);
  }

  #basis(device: ArrayLike<number>, out: Float64Array): void {
    const { inks, freedom } = this.model;
    for (let primary = 0; primary < 1 << inks; primary++) {
      let share = 1;
      for (let ink = 0; ink < inks; ink++) share *= (primary >> ink) & 1 ? device[ink] : 1 - device[ink];
      out[primary] = share;
    }
    const knots = freedom.bends + 1;
    for (let ink = 0; ink < inks; ink++)
      for (let bend = 1; bend < knots; bend++)
        out[(1 << inks) + ink * freedom.bends + bend - 1] = Math.max(
          0,
          1 - Math.abs(device[ink] * knots - bend),
        );
  }
}
