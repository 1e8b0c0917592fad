import { PROOF_COLUMNS } from './softProof.ts';

/** Points of the grid by the channels of the picture. */
const POINTS: Readonly<Record<number, number>> = { 1: 256, 3: 33, 4: 15 };

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
export function bakeProof(channels: number, rows: (values: Float64Array) => Float64Array): BakedProof {
  const points = POINTS[channels];
  if (points === undefined) throw new RangeError(`a picture of ${channels} channels, expected 1, 3 or 4`);
  const count = points ** channels;
  const values = new Float64Array(count * channels);
  for (let i = 0; i < count; i++)
    for (let channel = channels - 1, rest = i; channel >= 0; channel--, rest = Math.floor(rest / points))
      values[i * channels + channel] = (rest % points) / (points - 1);
  const table = Float32Array.from(rows(values));
  for (let at = 0; at < table.length; at += PROOF_COLUMNS) for (let c = 0; c < 3; c++) table[at + c] *= 255;
  return { channels, points, table };
}

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
const DELTA_E_STEPS = 160;

/**
 * Draws a proof of a picture, by tetrahedra over three channels and straight over a fourth (Sakamoto and Itooka 1981).
 * @param pixels row-major pixel × channels, 8 bits.
 * @param out RGBA.
 */
export function drawProof(
  { channels, points, table }: BakedProof,
  pixels: Uint8Array | Uint8ClampedArray,
  out: Uint8ClampedArray,
  draw: (rgba: Uint8ClampedArray, at: number, deltaE: number, ink: number) => void = () => {},
): ProofSums {
  const count = pixels.length / channels;
  const deltaE = new Uint32Array(DELTA_E_STEPS);
  const scale = (points - 1) / 255;
  const places = Uint32Array.from({ length: 256 }, (_, i) => Math.min(points - 2, Math.floor(i * scale)));
  const shares = Float32Array.from({ length: 256 }, (_, i) => i * scale - places[i]);
  const row = new Float32Array(PROOF_COLUMNS);
  const [x, y, z] = [points * points, points, 1].map((step) => step * PROOF_COLUMNS);
  const cube = points * x;
  let ink = 0;
  let mostInk = 0;
  for (let pixel = 0, at = 0; pixel < count; pixel++) {
    if (channels === 1) {
      const from = pixels[at++] * PROOF_COLUMNS;
      for (let c = 0; c < PROOF_COLUMNS; c++) row[c] = table[from + c];
    } else if (channels === 3) {
      tetrahedron(table, 0, pixels[at], pixels[at + 1], pixels[at + 2], places, shares, x, y, z, row, 1, 0);
      at += 3;
    } else {
      const first = pixels[at];
      const share = shares[first];
      const from = places[first] * cube;
      tetrahedron(
        table,
        from,
        pixels[at + 1],
        pixels[at + 2],
        pixels[at + 3],
        places,
        shares,
        x,
        y,
        z,
        row,
        1 - share,
        0,
      );
      tetrahedron(
        table,
        from + cube,
        pixels[at + 1],
        pixels[at + 2],
        pixels[at + 3],
        places,
        shares,
        x,
        y,
        z,
        row,
        share,
        1,
      );
      at += 4;
    }
    const write = 4 * pixel;
    out[write] = row[0];
    out[write + 1] = row[1];
    out[write + 2] = row[2];
    out[write + 3] = 255;
    const step = row[3] / DELTA_E_STEP;
    deltaE[step < DELTA_E_STEPS ? step | 0 : DELTA_E_STEPS - 1]++;
    ink += row[4];
    if (row[4] > mostInk) mostInk = row[4];
    draw(out, write, row[3], row[4]);
  }
  return { deltaE, ink, mostInk };
}

/** Adds a share of the value in one cube to a row; `keep` is 0 where the row begins with it. */
function tetrahedron(
  table: Float32Array,
  from: number,
  a: number,
  b: number,
  c: number,
  places: Uint32Array,
  shares: Float32Array,
  x: number,
  y: number,
  z: number,
  row: Float32Array,
  weight: number,
  keep: 0 | 1,
): void {
  const base = from + places[a] * x + places[b] * y + places[c] * z;
  const fa = shares[a];
  const fb = shares[b];
  const fc = shares[c];
  let one = x;
  let two = x + y;
  let high = fa;
  let middle = fb;
  let low = fc;
  if (fa >= fb) {
    if (fb < fc) {
      if (fa >= fc) {
        [two, middle, low] = [x + z, fc, fb];
      } else {
        [one, two, high, middle, low] = [z, x + z, fc, fa, fb];
      }
    }
  } else if (fa >= fc) {
    [one, high, middle] = [y, fb, fa];
  } else if (fb >= fc) {
    [one, two, high, middle, low] = [y, y + z, fb, fc, fa];
  } else {
    [one, two, high, middle, low] = [z, y + z, fc, fb, fa];
  }
  const w0 = weight * (1 - high);
  const w1 = weight * (high - middle);
  const w2 = weight * (middle - low);
  const w3 = weight * low;
  const all = base + x + y + z;
  for (let column = 0; column < PROOF_COLUMNS; column++)
    row[column] =
      keep * row[column] +
      w0 * table[base + column] +
      w1 * table[base + one + column] +
      w2 * table[base + two + column] +
      w3 * table[all + column];
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
