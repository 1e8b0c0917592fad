import type { Vector3 } from '../numerics/matrix3.ts';
import { transformed } from '../transform/transform.ts';
import type { Transform } from '../transform/transform.ts';

/** Points along an edge of a face: of three channels, which have six faces, and of more, which have many. */
const POINTS_OF_THREE = 33;
const POINTS_OF_MORE = 17;

/** A face of the device's values: two channels that vary, the others held. */
interface Face {
  readonly first: number;
  readonly second: number;
  /** The channel that makes up the limit of total ink on the faces that lie on it. */
  readonly rest?: number;
  readonly held: readonly number[];
}

/** Most of each channel and of their sum, 1 = 100 %. */
interface Room {
  readonly most: readonly number[];
  readonly totalInk: number;
}

/**
 * Triangles in which the surface of a device's gamut lies: the images of all faces of its values with two channels that
 * vary and the others at none or at most, and of those where the sum of inks is at its limit. Some lie inside; the surface
 * is the outermost of them in each direction.
 * @param toLab from device values 0..1.
 * @param totalInk limit of the sum, 1 = 100 %.
 * @param most limit of each channel; full where none is given.
 * @param points along an edge of a face.
 */
export function deviceSurface(
  toLab: Transform,
  totalInk = Infinity,
  most: readonly number[] = new Array<number>(toLab.inputs).fill(1),
  points = toLab.inputs === 3 ? POINTS_OF_THREE : POINTS_OF_MORE,
): Vector3[][] {
  const channels = toLab.inputs;
  if (channels < 3 || channels > 8)
    throw new RangeError(`a body of ${channels} channels, expected 3 to 8 channels`);
  const triangles: Vector3[][] = [];
  const room = { most, totalInk };
  for (const face of facesOf(room)) addFace(triangles, toLab, face, { ...room, points });
  return triangles;
}

function* facesOf({ most, totalInk }: Room): Generator<Face> {
  const channels = most.length;
  const limited = totalInk < most.reduce((a, b) => a + b, 0);
  for (let first = 0; first < channels; first++)
    for (let second = first + 1; second < channels; second++) {
      const others = Array.from({ length: channels }, (_, i) => i).filter((i) => i !== first && i !== second);
      for (let bits = 0; bits < 1 << others.length; bits++)
        yield { first, second, held: heldAt(most, others, bits) };
      if (!limited) continue;
      for (const rest of others) {
        const fixed = others.filter((i) => i !== rest);
        for (let bits = 0; bits < 1 << fixed.length; bits++)
          yield { first, second, rest, held: heldAt(most, fixed, bits) };
      }
    }
}

function heldAt(most: readonly number[], places: readonly number[], bits: number): number[] {
  const held = new Array<number>(most.length).fill(0);
  places.forEach((place, i) => (held[place] = (bits >> i) & 1 ? most[place] : 0));
  return held;
}

function addFace(
  out: Vector3[][],
  toLab: Transform,
  face: Face,
  { most, totalInk, points }: Room & { readonly points: number },
): void {
  const channels = toLab.inputs;
  const { first, second, rest, held } = face;
  const room = totalInk - held.reduce((a, b) => a + b, 0);
  const ends = [most[first], most[second]] as const;
  const least = rest === undefined ? 0 : room - most[rest];
  // What two or three inks between none and most can make up, and must where a third one does the rest.
  if (room < 0 || least > ends[0] + ends[1]) return;
  const device = new Float64Array(points * points * channels);
  for (let i = 0; i < points; i++)
    for (let j = 0; j < points; j++) {
      const [x, y] = between([(ends[0] * i) / (points - 1), (ends[1] * j) / (points - 1)], ends, least, room);
      const values = [...held];
      values[first] = x;
      values[second] = y;
      if (rest !== undefined) values[rest] = room - x - y;
      device.set(values, (i * points + j) * channels);
    }
  const lab = transformed(toLab, device);
  // Triangles share the colours of their corners, so that what is worked out of a colour is worked out once.
  const colours = Array.from({ length: points * points }, (_, at): Vector3 => [
    lab[3 * at],
    lab[3 * at + 1],
    lab[3 * at + 2],
  ]);
  for (let i = 0; i + 1 < points; i++)
    for (let j = 0; j + 1 < points; j++) {
      const corners = [i * points + j, (i + 1) * points + j, i * points + j + 1, (i + 1) * points + j + 1];
      const [a, b, c, d] = corners.map((at) => colours[at]);
      out.push([a, b, c], [b, c, d]);
    }
}

/** Draws two values so that their sum is between two others: towards none where it is over, towards most where under. */
function between(
  [x, y]: readonly [number, number],
  ends: readonly [number, number],
  least: number,
  most: number,
): readonly [number, number] {
  const sum = x + y;
  if (sum > most) return [(x * most) / sum, (y * most) / sum];
  if (sum >= least) return [x, y];
  const towards = (least - sum) / (ends[0] + ends[1] - sum);
  return [x + towards * (ends[0] - x), y + towards * (ends[1] - y)];
}
