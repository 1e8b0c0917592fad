import { deltaE2000Of } from '../colour/deltaE2000.ts';
import { labWeights } from '../colour/labWeights.ts';
import { choleskyFactor, choleskySolve } from '../numerics/cholesky.ts';
import type { Transform } from '../transform/transform.ts';

/** What is looked for nearer than this, ΔE00, is there. */
const MET = 0.02;
/** Steps of each channel over the edge of a device, where the nearest of a colour that does not print lies. */
const STEPS_OF: Readonly<Record<number, number>> = { 3: 24, 4: 10 };
const STEPS_OTHERWISE = 3;
/** By how much a place may lie farther in weighted Lab than the nearest, to be looked at by ΔE00: both agree on little more than the order. */
const LOOKED_AT = { times: 1.4, more: 1 };
/** Of them, the nearest that the search goes downhill from, beside the place that is given. */
const MOST_STARTS = 3;
/** Places that the last search begins at. */
const MOST_LAST = 3;
/** Places that lie this near to one another, in the sum of their channels, are one start. */
const APART = 0.4;
const DOWNHILL_STEPS = 25;
/** ΔE00 that a step downhill gains at least. */
const LEAST_GAIN = 1e-4;
/** Of the finite differences. */
const STEP = 1 / 128;
/** Steps of the last search, from coarse to fine. */
const LAST_STEPS = [0.06, 0.02, 0.007, 0.002] as const;

/** A device whose nearest colours are looked for. */
export interface NearestDevice {
  /** Device values to Lab, absolute. */
  readonly toLab: Transform;
  /** Largest sum of the device values; the number of channels where nothing limits it. */
  readonly mostInk: number;
}

/**
 * The device values whose colours come nearest to others by ΔE00, within the limit of total ink: downhill from several
 * places, the last steps along each channel and from one channel to another. The way through a profile keeps hue where a
 * colour does not print; this does not.
 * @param lab wanted, row-major × 3.
 * @param from device values to begin at, as a profile gives them; row-major × channel.
 * @returns row-major × channel.
 */
export function nearestDevice(
  { toLab, mostInk }: NearestDevice,
  lab: ArrayLike<number>,
  from: ArrayLike<number>,
): Float64Array {
  const channels = toLab.inputs;
  const search = new NearestSearch(toLab, mostInk);
  const out = Float64Array.from(from);
  for (let i = 0; i < lab.length / 3; i++) {
    search.aim(lab[3 * i], lab[3 * i + 1], lab[3 * i + 2]);
    out.set(search.from(out.slice(i * channels, (i + 1) * channels)), i * channels);
  }
  return out;
}

class NearestSearch {
  readonly #channels: number;
  readonly #target = new Float64Array(3);
  readonly #weights = new Float64Array(9);
  readonly #starts: Float64Array;
  readonly #startLab: Float64Array;
  readonly #away: Float64Array;
  /** A row of device values, then one for each way to go from it; and their colours. */
  readonly #rows: Float64Array;
  readonly #labs: Float64Array;
  readonly #ways: readonly (readonly number[])[];

  constructor(
    private readonly toLab: Transform,
    private readonly mostInk: number,
  ) {
    const channels = toLab.inputs;
    this.#channels = channels;
    this.#starts = startsOf(channels, mostInk);
    this.#startLab = new Float64Array((this.#starts.length / channels) * 3);
    toLab.apply(this.#starts, this.#startLab);
    this.#away = new Float64Array(this.#startLab.length / 3);
    this.#ways = waysOf(channels);
    this.#rows = new Float64Array(this.#ways.length * channels);
    this.#labs = new Float64Array(this.#ways.length * 3);
  }

  aim(l: number, a: number, b: number): void {
    this.#target.set([l, a, b]);
    labWeights(l, a, b, 1, this.#weights);
  }

  /** The nearest that is found from a place and from the nearest of the starts. */
  from(given: Float64Array): Float64Array {
    let best = this.#kept(given);
    let least = this.#distance(best);
    if (least <= MET) return best;
    const places: { readonly device: Float64Array; readonly distance: number }[] = [];
    const keep = (device: Float64Array): void => {
      places.push({ device, distance: this.#distance(device) });
    };
    for (const start of [best, ...this.#nearestStarts()]) {
      keep(this.#downhill(start));
      keep(start);
    }
    places.sort((one, other) => one.distance - other.distance);
    for (const { device } of places.slice(0, MOST_LAST)) {
      if (least <= MET) break;
      const found = this.#last(device);
      const distance = this.#distance(found);
      if (distance < least) [best, least] = [found, distance];
    }
    return best;
  }

  #distance(device: Float64Array): number {
    this.toLab.apply(device, this.#labs);
    return this.#apart(this.#labs, 0);
  }

  #apart(lab: Float64Array, row: number): number {
    const [l, a, b] = this.#target;
    return deltaE2000Of(l, a, b, lab[3 * row], lab[3 * row + 1], lab[3 * row + 2]);
  }

  #nearestStarts(): Float64Array[] {
    const channels = this.#channels;
    const away = this.#away;
    let least = Infinity;
    for (let row = 0; row < away.length; row++) {
      away[row] = this.#weighted(this.#startLab, row);
      if (away[row] < least) least = away[row];
    }
    const most = (LOOKED_AT.times * Math.sqrt(least) + LOOKED_AT.more) ** 2;
    const looked: { readonly row: number; readonly distance: number }[] = [];
    for (let row = 0; row < away.length; row++)
      if (away[row] <= most) looked.push({ row, distance: this.#apart(this.#startLab, row) });
    looked.sort((one, other) => one.distance - other.distance);
    const found: Float64Array[] = [];
    for (const { row } of looked) {
      const own = this.#starts.subarray(row * channels, (row + 1) * channels);
      const isNear = found.some(
        (before) => own.reduce((sum, value, i) => sum + Math.abs(value - before[i]), 0) < APART,
      );
      if (!isNear) found.push(own.slice());
      if (found.length === MOST_STARTS) break;
    }
    return found;
  }

  /** Square of about ΔE00. */
  #weighted(lab: Float64Array, row: number): number {
    const w = this.#weights;
    const [l, a, b] = this.#target;
    const dl = w[0] * (lab[3 * row] - l);
    const da = lab[3 * row + 1] - a;
    const db = lab[3 * row + 2] - b;
    const dc = w[4] * da + w[5] * db;
    const dh = w[7] * da + w[8] * db;
    return dl * dl + dc * dc + dh * dh;
  }

  /** Levenberg-Marquardt on the weighted differences; channels at their ends stay there while they push outwards. */
  #downhill(start: Float64Array): Float64Array {
    const n = this.#channels;
    let at = start;
    let least = this.#distance(at);
    let damping = 1e-3;
    for (let step = 0; step < DOWNHILL_STEPS && least > MET; step++) {
      const { normal, gradient } = this.#slopes(at);
      const held = Array.from(gradient, (slope, i) => (slope > 0 ? at[i] >= 1 : at[i] <= 0));
      const damped = normal.slice();
      const move = gradient.slice();
      for (let i = 0; i < n; i++) {
        damped[i * n + i] += damping * (1 + normal[i * n + i]);
        if (!held[i]) continue;
        move[i] = 0;
        for (let j = 0; j < n; j++) damped[i * n + j] = damped[j * n + i] = Number(i === j);
      }
      if (!choleskyFactor(damped, n)) break;
      choleskySolve(damped, n, move);
      const next = this.#kept(at.map((value, i) => value + move[i]));
      const distance = this.#distance(next);
      if (distance < least - LEAST_GAIN) [at, least, damping] = [next, distance, damping / 4];
      else if (damping > 100) break;
      else damping *= 6;
    }
    return at;
  }

  /** Normal equations of the weighted differences, by steps towards the middle of each channel. */
  #slopes(at: Float64Array): { readonly normal: Float64Array; readonly gradient: Float64Array } {
    const n = this.#channels;
    const rows = this.#rows.subarray(0, (n + 1) * n);
    for (let row = 0; row <= n; row++) rows.set(at, row * n);
    for (let i = 0; i < n; i++) rows[(i + 1) * n + i] += at[i] > 0.5 ? -STEP : STEP;
    this.toLab.apply(rows, this.#labs);
    const w = this.#weights;
    const labs = this.#labs;
    const weighted = (l: number, a: number, b: number): readonly number[] => [
      w[0] * l,
      w[4] * a + w[5] * b,
      w[7] * a + w[8] * b,
    ];
    const rest = weighted(this.#target[0] - labs[0], this.#target[1] - labs[1], this.#target[2] - labs[2]);
    const slopes = Array.from({ length: n }, (_, i) => {
      const of = 3 * (i + 1);
      const step = at[i] > 0.5 ? -STEP : STEP;
      return weighted(
        (labs[of] - labs[0]) / step,
        (labs[of + 1] - labs[1]) / step,
        (labs[of + 2] - labs[2]) / step,
      );
    });
    const dot = (p: readonly number[], q: readonly number[]): number =>
      p[0] * q[0] + p[1] * q[1] + p[2] * q[2];
    return {
      normal: Float64Array.from(slopes.flatMap((own) => slopes.map((other) => dot(own, other)))),
      gradient: Float64Array.from(slopes, (own) => dot(own, rest)),
    };
  }

  /** Goes the best of all ways as long as one is better, by smaller and smaller steps. */
  #last(start: Float64Array): Float64Array {
    const n = this.#channels;
    let at = start;
    let least = this.#distance(at);
    for (const step of LAST_STEPS)
      for (let better = least > MET; better;) {
        this.#ways.forEach((way, row) => {
          this.#rows.set(this.#kept(at.map((value, i) => value + step * way[i])), row * n);
        });
        this.toLab.apply(this.#rows, this.#labs);
        better = false;
        let best = 0;
        for (let row = 0; row < this.#ways.length; row++) {
          const distance = this.#apart(this.#labs, row);
          if (distance < least - 1e-6) [least, best, better] = [distance, row, true];
        }
        if (better) at = this.#rows.slice(best * n, (best + 1) * n);
      }
    return at;
  }

  /** Between 0 and 1, and no more ink than the limit: too much is taken from all but the last channel, which is black. */
  #kept(device: Float64Array): Float64Array {
    const out = device.map((value) => Math.min(1, Math.max(0, value)));
    const over = out.reduce((sum, value) => sum + value, 0) - this.mostInk;
    if (over <= 0) return out;
    const colours = out.subarray(0, Math.max(1, out.length - 1));
    const ink = colours.reduce((sum, value) => sum + value, 0);
    const share = Math.max(0, 1 - over / ink);
    for (let i = 0; i < colours.length; i++) colours[i] *= share;
    return out;
  }
}

/** Places on the edge: one channel at least at its end, or all the ink that there may be. */
function startsOf(channels: number, mostInk: number): Float64Array {
  const steps = STEPS_OF[channels] ?? STEPS_OTHERWISE;
  const places: number[] = [];
  const counts = new Array<number>(channels).fill(0);
  for (let at = 0; at < (steps + 1) ** channels; at++) {
    for (let i = 0, rest = at; i < channels; i++, rest = Math.floor(rest / (steps + 1)))
      counts[i] = rest % (steps + 1);
    const ink = counts.reduce((sum, value) => sum + value, 0) / steps;
    if (ink > mostInk + 1e-9) continue;
    const full = ink > mostInk - 1 / steps;
    if (full || counts.some((value) => value === 0 || value === steps))
      places.push(...counts.map((value) => value / steps));
  }
  return Float64Array.from(places);
}

/** Each channel up and down, and each traded for each other. */
function waysOf(channels: number): number[][] {
  const ways: number[][] = [];
  const way = (up: number, down: number): number[] =>
    Array.from({ length: channels }, (_, i) => Number(i === up) - Number(i === down));
  for (let i = 0; i < channels; i++) {
    ways.push(way(i, -1), way(-1, i));
    for (let j = 0; j < channels; j++) if (i !== j) ways.push(way(i, j));
  }
  return ways;
}
