import { PROOF_COLUMNS } from './softProof.ts';

/** How finely a proof is worked out: coarsely while something is being moved, as well as can be once it rests. */
export type Fineness = 'coarse' | 'fine' | 'finest';

/** Points of the grid by the channels of the picture. */
const POINTS: Readonly<Record<Fineness, Readonly<Record<number, number>>>> = {
  coarse: { 1: 256, 3: 13, 4: 7 },
  fine: { 1: 256, 3: 33, 4: 15 },
  finest: { 1: 256, 3: 65, 4: 15 },
};

/** Points along each channel of a picture's grid: of some channels as many however finely it is asked for. */
export function bakePoints(channels: number, fineness: Fineness): number {
  const points = POINTS[fineness][channels];
  if (points === undefined) throw new RangeError(`a picture of ${channels} channels, expected 1, 3 or 4`);
  return points;
}

/** A proof worked out at the points of a grid, for pictures of eight bits. */
export interface BakedProof {
  readonly channels: number;
  readonly points: number;
  /** Row-major, the last channel fastest, five columns a point; the screen's signal 0..255. */
  readonly table: Float32Array;
}

/**
 * Works a proof out at a grid.
 * @param rows five columns for rows of the picture's values.
 */
export function bakeProof(
  channels: number,
  rows: (values: Float64Array) => Float64Array,
  fineness: Fineness = 'fine',
): BakedProof {
  const steps = bakeSteps(channels, rows, fineness);
  for (;;) {
    const step = steps.next();
    if (step.done === true) return step.value;
  }
}

/** The same a slice at a time, so that something else can be done between, or the rest left. */
export function* bakeSteps(
  channels: number,
  rows: (values: Float64Array) => Float64Array,
  fineness: Fineness,
): Generator<undefined, BakedProof> {
  const points = bakePoints(channels, fineness);
  const count = points ** channels;
  const table = new Float32Array(count * PROOF_COLUMNS);
  for (let first = 0; first < count; first += SLICE) {
    const end = Math.min(count, first + SLICE);
    const values = new Float64Array((end - first) * channels);
    for (let i = first; i < end; i++)
      for (let channel = channels - 1, rest = i; channel >= 0; channel--, rest = Math.floor(rest / points))
        values[(i - first) * channels + channel] = (rest % points) / (points - 1);
    table.set(rows(values), first * PROOF_COLUMNS);
    if (end < count) yield;
  }
  for (let at = 0; at < table.length; at += PROOF_COLUMNS) for (let c = 0; c < 3; c++) table[at + c] *= 255;
  return { channels, points, table };
}

/** Points of a grid that are worked out at once. */
const SLICE = 4096;

/** What is drawn over a proof. */
export type ProofOverlay = 'none' | 'out of gamut' | 'ink';

/** Figures of a proof over all pixels. */
export interface ProofSums {
  /** Pixels by ΔE00 in steps of a quarter, the last one for all beyond. */
  readonly deltaE: Uint32Array;
  /** Sum of the device values of all pixels, and the most of one. */
  readonly ink: number;
  readonly mostInk: number;
}

export const DELTA_E_STEP = 0.25;
const STEPS_PER_UNIT = 1 / DELTA_E_STEP;
const DELTA_E_STEPS = 160;

/**
 * Draws a proof of a picture, by tetrahedra over three channels and straight over a fourth (Sakamoto and Itooka 1981).
 * @param pixels row-major pixel × channels, 8 bits.
 * @param out RGBA.
 */
export function drawProof(
  baked: BakedProof,
  pixels: Uint8Array | Uint8ClampedArray,
  out: Uint8ClampedArray,
  draw?: (rgba: Uint8ClampedArray, at: number, deltaE: number, ink: number) => void,
): ProofSums {
  return sumProof(baked, pixels, (rows, first, some) => {
    for (let i = 0, from = 0, write = 4 * first; i < some; i++, from += PROOF_COLUMNS, write += 4) {
      out[write] = rows[from];
      out[write + 1] = rows[from + 1];
      out[write + 2] = rows[from + 2];
      out[write + 3] = 255;
    }
    if (draw !== undefined)
      for (let i = 0; i < some; i++)
        draw(out, 4 * (first + i), rows[i * PROOF_COLUMNS + 3], rows[i * PROOF_COLUMNS + 4]);
  });
}

/**
 * Sums a proof of a picture.
 * @param pixels row-major pixel × channels, 8 bits.
 * @param each is given the rows of some pixels, from the first of them on.
 */
export function sumProof(
  baked: BakedProof,
  pixels: Uint8Array | Uint8ClampedArray,
  each?: (rows: Float32Array, first: number, some: number) => void,
): ProofSums {
  const { channels } = baked;
  const count = pixels.length / channels;
  const rows = new Float32Array(BLOCK * PROOF_COLUMNS);
  const deltaE = new Uint32Array(DELTA_E_STEPS);
  let ink = 0;
  let mostInk = 0;
  for (let first = 0; first < count; first += BLOCK) {
    const some = Math.min(BLOCK, count - first);
    interpolateRows(baked, pixels, first * channels, some, rows);
    for (let i = 0, from = 0; i < some; i++, from += PROOF_COLUMNS) {
      const step = (rows[from + 3] * STEPS_PER_UNIT) | 0;
      deltaE[step < DELTA_E_STEPS ? step : DELTA_E_STEPS - 1]++;
      const own = rows[from + 4];
      ink += own;
      if (own > mostInk) mostInk = own;
    }
    each?.(rows, first, some);
  }
  return { deltaE, ink, mostInk };
}

/** Pixels that are worked out before they are drawn. */
const BLOCK = 1024;

function interpolateRows(
  { channels, points, table }: BakedProof,
  pixels: Uint8Array | Uint8ClampedArray,
  start: number,
  count: number,
  rows: Float32Array,
): void {
  if (channels === 1) {
    for (let i = 0, to = 0; i < count; i++)
      for (let c = 0, from = pixels[start + i] * PROOF_COLUMNS; c < PROOF_COLUMNS; c++)
        rows[to++] = table[from + c];
    return;
  }
  const { places, shares } = levelsOf(points);
  const cube = points ** 3 * PROOF_COLUMNS;
  if (channels === 3) {
    for (let i = 0, at = start, to = 0; i < count; i++, at += 3, to += PROOF_COLUMNS)
      tetrahedron(table, 0, points, places, shares, pixels, at, rows, to, 1, 0);
    return;
  }
  for (let i = 0, at = start, to = 0; i < count; i++, at += 4, to += PROOF_COLUMNS) {
    const share = shares[pixels[at]];
    const from = places[pixels[at]] * cube;
    tetrahedron(table, from, points, places, shares, pixels, at + 1, rows, to, 1 - share, 0);
    if (share > 0)
      tetrahedron(table, from + cube, points, places, shares, pixels, at + 1, rows, to, share, 1);
  }
}

interface Levels {
  /** The point below each of 256 levels, and how far beyond it the level is. */
  readonly places: Uint32Array;
  readonly shares: Float32Array;
}

const levels = new Map<number, Levels>();

function levelsOf(points: number): Levels {
  const known = levels.get(points);
  if (known !== undefined) return known;
  const scale = (points - 1) / 255;
  const places = Uint32Array.from({ length: 256 }, (_, i) => Math.min(points - 2, Math.floor(i * scale)));
  const made = { places, shares: Float32Array.from({ length: 256 }, (_, i) => i * scale - places[i]) };
  levels.set(points, made);
  return made;
}

/** Sets or adds a share of the value in one cube to a row; `keep` is 0 where the row begins with it. */
function tetrahedron(
  table: Float32Array,
  from: number,
  points: number,
  places: Uint32Array,
  shares: Float32Array,
  pixels: Uint8Array | Uint8ClampedArray,
  at: number,
  rows: Float32Array,
  to: number,
  weight: number,
  keep: 0 | 1,
): void {
  const a = pixels[at];
  const b = pixels[at + 1];
  const c = pixels[at + 2];
  const fa = shares[a];
  const fb = shares[b];
  const fc = shares[c];
  const z = PROOF_COLUMNS;
  const y = points * PROOF_COLUMNS;
  const x = points * y;
  const base = from + places[a] * x + places[b] * y + places[c] * z;
  let one: number;
  let two: number;
  let high: number;
  let middle: number;
  let low: number;
  if (fa >= fb) {
    if (fb >= fc) {
      one = x;
      two = x + y;
      high = fa;
      middle = fb;
      low = fc;
    } else if (fa >= fc) {
      one = x;
      two = x + z;
      high = fa;
      middle = fc;
      low = fb;
    } else {
      one = z;
      two = x + z;
      high = fc;
      middle = fa;
      low = fb;
    }
  } else if (fa >= fc) {
    one = y;
    two = x + y;
    high = fb;
    middle = fa;
    low = fc;
  } else if (fb >= fc) {
    one = y;
    two = y + z;
    high = fb;
    middle = fc;
    low = fa;
  } else {
    one = z;
    two = y + z;
    high = fc;
    middle = fb;
    low = fa;
  }
  const w0 = weight * (1 - high);
  const w1 = weight * (high - middle);
  const w2 = weight * (middle - low);
  const w3 = weight * low;
  const p1 = base + one;
  const p2 = base + two;
  const p3 = base + x + y + z;
  if (keep === 0)
    for (let i = 0; i < PROOF_COLUMNS; i++)
      rows[to + i] = w0 * table[base + i] + w1 * table[p1 + i] + w2 * table[p2 + i] + w3 * table[p3 + i];
  else
    for (let i = 0; i < PROOF_COLUMNS; i++)
      rows[to + i] += w0 * table[base + i] + w1 * table[p1 + i] + w2 * table[p2 + i] + w3 * table[p3 + i];
}

/** Mean and 95th percentile of ΔE00, and the share of pixels beyond a value, from counts by steps. */
export function proofFigures({ deltaE, ink, mostInk }: ProofSums): {
  readonly mean: number;
  readonly p95: number;
  /** Shares of pixels beyond 1, 3 and 6 ΔE00. */
  readonly beyond: readonly [number, number, number];
  readonly meanInk: number;
  readonly mostInk: number;
} {
  const total = Math.max(
    1,
    deltaE.reduce((sum, own) => sum + own, 0),
  );
  const middle = (step: number): number => (step + 0.5) * DELTA_E_STEP;
  let sum = 0;
  let seen = 0;
  let p95 = 0;
  deltaE.forEach((own, step) => {
    sum += own * middle(step);
    if (seen < 0.95 * total && seen + own >= 0.95 * total) p95 = middle(step);
    seen += own;
  });
  const beyond = (limit: number): number =>
    deltaE.reduce((count, own, step) => (step * DELTA_E_STEP >= limit ? count + own : count), 0) / total;
  return { mean: sum / total, p95, beyond: [beyond(1), beyond(3), beyond(6)], meanInk: ink / total, mostInk };
}
