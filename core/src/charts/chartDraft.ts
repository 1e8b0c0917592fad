import { farthestPoints } from './farthestPoint.ts';
import { eightBit, pushPatch } from './namedPatches.ts';
import type { NamedPatches } from './namedPatches.ts';

/** Coordinates in which space is filled: black takes room from the other inks. */
const BLACK_SHADE = 0.72;
const DRAWS_PER_PATCH = 14;
const DRAWS_LEAST = 400;

/** A chart while it is put together: 8-bit levels, no value twice but paper and repeats, ink under a limit. */
export class ChartDraft {
  readonly device: number[] = [];
  readonly names: string[] = [];
  readonly #seen = new Set<string>();

  /**
   * @param mostInk limit of the sum, 1 = 100 %.
   * @param black channel of the black ink.
   */
  constructor(
    readonly patches: number,
    private readonly mostInk: number,
    private readonly black = 3,
  ) {}

  get room(): number {
    return this.patches - this.names.length;
  }

  /** Adds a patch; false where it is there already, has too much ink, or the chart is full. */
  add(values: readonly number[], name: string): boolean {
    const own = values.map(eightBit);
    const key = own.join();
    if (this.room <= 0 || !this.#allowed(own) || (this.#seen.has(key) && name !== 'paper')) return false;
    this.#seen.add(key);
    pushPatch(this.device, this.names, own, name);
    return true;
  }

  /** The same value once more, for the repeatability of reading. */
  repeat(row: number, name = 'repeat'): void {
    const channels = this.device.length / this.names.length;
    pushPatch(this.device, this.names, this.device.slice(channels * row, channels * (row + 1)), name);
  }

  /** Adds the drawn values that lie farthest from all others. */
  fill(count: number, name: string, draw: () => number[]): void {
    const drawn = Array.from({ length: Math.max(DRAWS_LEAST, count * DRAWS_PER_PATCH) }, () =>
      draw().map(eightBit),
    ).filter((values) => this.#allowed(values));
    const rows = Float64Array.from(drawn.flatMap((values) => coordinates(values, this.black)));
    const taken = new Float64Array(this.device.length);
    const channels = this.device.length / this.names.length;
    for (let i = 0; i < this.names.length; i++)
      taken.set(coordinates(this.device.slice(channels * i, channels * (i + 1)), this.black), channels * i);
    let added = 0;
    for (const index of farthestPoints(rows, taken, channels, count * 2)) {
      if (added >= count) break;
      if (this.add(drawn[index], name)) added++;
    }
  }

  finish(): NamedPatches {
    return { device: Float64Array.from(this.device), names: this.names };
  }

  #allowed(values: readonly number[]): boolean {
    return values.reduce((a, b) => a + b, 0) <= this.mostInk;
  }
}

function coordinates(values: readonly number[], black: number): number[] {
  return values.map((value, ink) => (ink === black ? value : value * (1 - BLACK_SHADE * values[black])));
}
