import type { Vector3 } from '../numerics/matrix3.ts';
import type { Transform } from '../transform/transform.ts';

/** Points along an edge of a face. */
const POINTS = 25;

/** A face of the device's values: two channels that vary, the others held. */
interface Face {
  readonly first: number;
  readonly second: number;
  /** The channel that makes up the limit of total ink on the faces that lie on it. */
  readonly rest?: number;
  readonly held: readonly number[];
}

/**
 * Triangles in which the surface of a device's gamut lies: the images of all faces of its values with two channels that
 * vary and the others at none or full, and of those where the sum of inks is at its limit. Some lie inside; the surface
 * is the outermost of them in each direction.
 * @param toLab from device values 0..1.
 * @param totalInk limit of the sum, 1 = 100 %.
 */
export function deviceSurface(toLab: Transform, totalInk = Infinity): Vector3[][] {
  const channels = toLab.inputs;
  if (channels < 3 || channels > 8)
    throw new RangeError(`a body of ${channels} channels, expected 3 to 8 channels`);
  const triangles: Vector3[][] = [];
  for (const face of facesOf(channels, totalInk)) addFace(triangles, toLab, face, totalInk);
  return triangles;
}

function* facesOf(channels: number, totalInk: number): Generator<Face> {
  for (let first = 0; first < channels; first++)
    for (let second = first + 1; second < channels; second++) {
      const others = Array.from({ length: channels }, (_, i) => i).filter((i) => i !== first && i !== second);
      for (let bits = 0; bits < 1 << others.length; bits++)
        yield { first, second, held: heldAt(channels, others, bits) };
      if (totalInk >= channels) continue;
      for (const rest of others) {
        const fixed = others.filter((i) => i !== rest);
        for (let bits = 0; bits < 1 << fixed.length; bits++)
          yield { first, second, rest, held: heldAt(channels, fixed, bits) };
      }
    }
}

function heldAt(channels: number, places: readonly number[], bits: number): number[] {
  const held = new Array<number>(channels).fill(0);
  places.forEach((place, i) => (held[place] = (bits >> i) & 1));
  return held;
}

function addFace(out: Vector3[][], toLab: Transform, face: Face, totalInk: number): void {
  const channels = toLab.inputs;
  const { first, second, rest, held } = face;
  const start = held.reduce((a, b) => a + b, 0);
  const device = new Float64Array(POINTS * POINTS * channels);
  const within = new Uint8Array(POINTS * POINTS);
  for (let i = 0; i < POINTS; i++)
    for (let j = 0; j < POINTS; j++) {
      const at = i * POINTS + j;
      const values = [...held];
      values[first] = i / (POINTS - 1);
      values[second] = j / (POINTS - 1);
      if (rest === undefined) onto(values, first, second, start, totalInk);
      else values[rest] = totalInk - start - values[first] - values[second];
      within[at] = values.every((value) => value >= -1e-9 && value <= 1 + 1e-9) ? 1 : 0;
      device.set(
        values.map((value) => Math.min(1, Math.max(0, value))),
        at * channels,
      );
    }
  if (start > totalInk + 1e-9) return;
  const lab = new Float64Array(POINTS * POINTS * 3);
  toLab.apply(device, lab);
  const colour = (at: number): Vector3 => [lab[3 * at], lab[3 * at + 1], lab[3 * at + 2]];
  for (let i = 0; i + 1 < POINTS; i++)
    for (let j = 0; j + 1 < POINTS; j++) {
      const corners = [i * POINTS + j, (i + 1) * POINTS + j, i * POINTS + j + 1, (i + 1) * POINTS + j + 1];
      for (const three of [corners.slice(0, 3), corners.slice(1)])
        if (three.every((at) => within[at] === 1)) out.push(three.map(colour));
    }
}

/** Draws values that are over the limit back to it along the line from the corner of the face. */
function onto(values: number[], first: number, second: number, start: number, totalInk: number): void {
  const own = values[first] + values[second];
  const room = totalInk - start;
  if (own <= room || own === 0) return;
  values[first] *= Math.max(0, room) / own;
  values[second] *= Math.max(0, room) / own;
}
