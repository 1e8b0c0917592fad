import { dotAt } from '../numerics/dot.ts';
import type { UncertainPoint } from '../characterise/uncertainty.ts';
import type { Uncertainty } from '../characterise/uncertainty.ts';

/**
 * Picks the candidates whose reading would lower the expected squared ΔE00 over the references most, each with those
 * before it counted in (active learning after D. A. Cohn, Neural Networks 9, 1996). The gain of a candidate hardly ever
 * grows as others are picked, so only those at the top of the queue are worked out again (lazy greedy choice).
 * @param first candidates that are read whatever happens: counted in before, not returned.
 * @returns indices of candidates, most telling first.
 */
export function chooseTelling(
  uncertainty: Uncertainty,
  candidates: readonly UncertainPoint[],
  references: readonly UncertainPoint[],
  count: number,
  first: readonly number[] = [],
  onProgress: (fraction: number) => void = () => {},
): number[] {
  const all = Math.min(first.length + count, candidates.length);
  return new TellingSearch(uncertainty, candidates, references, all).run(first, onProgress);
}

const PREPARING = 0.5;

class TellingSearch {
  /** Row-major candidate × reference: covariance times the weight of the reference, given the picks counted in. */
  readonly #covariance: Float64Array;
  readonly #variance: Float64Array;
  readonly #gain: Float64Array;
  /** Picks counted in, a candidate. */
  readonly #counted: Int32Array;
  /** Row-major candidate × pick: covariance with the pick over the root of its variance, given the picks before. */
  readonly #shares: Float64Array;
  readonly #picked: number[] = [];
  readonly #rows: Float64Array[] = [];

  constructor(
    private readonly uncertainty: Uncertainty,
    private readonly candidates: readonly UncertainPoint[],
    private readonly references: readonly UncertainPoint[],
    private readonly count: number,
  ) {
    const total = candidates.length;
    this.#covariance = new Float64Array(total * references.length);
    this.#variance = Float64Array.from(candidates, ({ variance }) => variance);
    this.#gain = new Float64Array(total);
    this.#counted = new Int32Array(total);
    this.#shares = new Float64Array(total * count);
  }

  run(first: readonly number[], onProgress: (fraction: number) => void): number[] {
    const total = this.candidates.length;
    for (let i = 0; i < total; i++) {
      this.references.forEach((reference, j) => {
        this.#covariance[i * this.references.length + j] =
          reference.weight * this.uncertainty.covariance(this.candidates[i], reference);
      });
      this.#gain[i] = this.#gainOf(i);
      if (i % 128 === 0) onProgress((PREPARING * i) / total);
    }
    for (const index of first) {
      this.#countIn(index);
      this.#pick(index);
    }
    while (this.#picked.length < this.count) {
      this.#pick(this.#best());
      if (this.#picked.length % 16 === 0)
        onProgress(PREPARING + ((1 - PREPARING) * this.#picked.length) / this.count);
    }
    return this.#picked.slice(first.length);
  }

  #gainOf(i: number): number {
    const at = i * this.references.length;
    return (
      dotAt(this.#covariance, at, this.#covariance, at, this.references.length) /
      (this.#variance[i] + this.uncertainty.noise)
    );
  }

  #best(): number {
    for (;;) {
      let best = 0;
      for (let i = 1; i < this.#gain.length; i++) if (this.#gain[i] > this.#gain[best]) best = i;
      if (this.#counted[best] === this.#picked.length) return best;
      this.#countIn(best);
      this.#gain[best] = this.#gainOf(best);
    }
  }

  /** Brings one candidate up to date with all picks. */
  #countIn(i: number): void {
    const { count } = this;
    const at = i * this.references.length;
    for (let step = this.#counted[i]; step < this.#picked.length; step++) {
      const pick = this.#picked[step];
      const own =
        this.uncertainty.covariance(this.candidates[i], this.candidates[pick]) -
        dotAt(this.#shares, i * count, this.#shares, pick * count, step);
      const share = own / this.#shares[pick * count + step];
      this.#shares[i * count + step] = share;
      this.#variance[i] = Math.max(0, this.#variance[i] - share * share);
      const row = this.#rows[step];
      for (let j = 0; j < row.length; j++) this.#covariance[at + j] -= share * row[j];
    }
    this.#counted[i] = this.#picked.length;
  }

  #pick(best: number): void {
    const total = Math.sqrt(this.#variance[best] + this.uncertainty.noise);
    const at = best * this.references.length;
    this.#rows.push(this.#covariance.slice(at, at + this.references.length).map((value) => value / total));
    this.#shares[best * this.count + this.#picked.length] = total;
    this.#picked.push(best);
    this.#gain[best] = -1;
    this.#counted[best] = this.count;
  }
}
