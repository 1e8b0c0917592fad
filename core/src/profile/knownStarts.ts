import type { DeviceTable } from './inkTable.ts';

/** How far black counts from its curve, beside ΔE: for the whole range of black. */
const BLACK_APART = 12;

/** Inks from which colours are looked for, with the colours that they have, by rising L*. */
export class KnownStarts {
  readonly #inks: number;
  /** Row-major × ink. */
  readonly #device: Float64Array;
  /** Row-major × 3. */
  readonly #lab: Float64Array;

  /** @param wanted inks of each start, which are printed as far as `bounds` go. */
  constructor(
    table: DeviceTable,
    wanted: readonly (readonly number[])[],
    bounds: Float64Array,
    private readonly blackInk: number,
  ) {
    this.#inks = bounds.length;
    const rows = wanted
      .map((values) => {
        const device = values.map((value, i) => Math.min(value, bounds[i]));
        table.evaluate(device);
        return { device, lab: [...table.lab] };
      })
      .sort((one, other) => one.lab[0] - other.lab[0]);
    this.#device = Float64Array.from(rows.flatMap(({ device }) => device));
    this.#lab = Float64Array.from(rows.flatMap(({ lab }) => lab));
  }

  /** The nearest one to a colour and its black. */
  nearest(target: ArrayLike<number>, black: number): Float64Array {
    const l = target[0];
    const lab = this.#lab;
    const count = lab.length / 3;
    let middle = 0;
    for (let high = count; middle < high;) {
      const half = (middle + high) >> 1;
      if (lab[3 * half] < l) middle = half + 1;
      else high = half;
    }
    let best = Infinity;
    let at = 0;
    // From the target's own lightness to both sides, until lightness alone is farther than the best.
    for (let side = -1; side <= 1; side += 2)
      for (let i = side < 0 ? middle - 1 : middle; i >= 0 && i < count; i += side) {
        const dl = lab[3 * i] - l;
        if (dl * dl >= best) break;
        const d = this.#apart(i, target, black);
        if (d < best) {
          best = d;
          at = i;
        }
      }
    return this.#inksOf(at);
  }

  /** The nearest few, the nearest first. */
  nearestFew(target: ArrayLike<number>, black: number, most: number): readonly Float64Array[] {
    const near: number[] = [];
    const apart: number[] = [];
    for (let i = 0; i < this.#lab.length / 3; i++) {
      const own = this.#apart(i, target, black);
      let place = near.length;
      while (place > 0 && own < apart[place - 1]) place--;
      if (place >= most) continue;
      near.splice(place, 0, i);
      apart.splice(place, 0, own);
      if (near.length > most) {
        near.pop();
        apart.pop();
      }
    }
    return near.map((i) => this.#inksOf(i));
  }

  #inksOf(i: number): Float64Array {
    return this.#device.subarray(this.#inks * i, this.#inks * (i + 1));
  }

  /** How far a start is from a colour: in colour, and in black from its curve. */
  #apart(i: number, target: ArrayLike<number>, black: number): number {
    const lab = this.#lab;
    const dl = lab[3 * i] - target[0];
    const da = lab[3 * i + 1] - target[1];
    const db = lab[3 * i + 2] - target[2];
    const dk = BLACK_APART * (this.#device[this.#inks * i + this.blackInk] - black);
    return dl * dl + 0.5 * (da * da + db * db) + dk * dk;
  }
}
