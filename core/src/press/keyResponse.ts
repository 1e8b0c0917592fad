import { solvePositiveDefinite } from '../numerics/cholesky.ts';

/** How the densities of one unit answer to moves that were asked for, as far as it is known. */
export interface KeyResponse {
  /** Change of a zone's density for each unit asked of it, when all is settled. */
  readonly gain: number;
  /** Share of that which reaches each neighbour. */
  readonly neighbour: number;
}

/** Before anything was seen: keys do what they are asked, and a tenth of it goes to each neighbour. */
export const UNKNOWN_RESPONSE: KeyResponse = { gain: 1, neighbour: 0.1 };

/** What may be believed of any press. */
const GAIN = { least: 0.35, most: 2.2, doubt: 0.4 } as const;
const NEIGHBOUR = { least: 0, most: 0.25, doubt: 0.12 } as const;
/**
 * How far a move is held back where zones cannot be told apart: where much ink reaches the neighbours, changes that swing
 * from zone to zone hardly come about, and asking for them would only shake the press.
 */
const HELD_BACK = 0.02;

/** What a move was to do by zone, and what was seen once it had settled. */
export interface SeenMove {
  readonly asked: ArrayLike<number>;
  /** NaN in zones that were not read. */
  readonly seen: ArrayLike<number>;
}

/** Sum of what the two neighbours were asked for. */
function beside(asked: ArrayLike<number>, zone: number): number {
  return (zone > 0 ? asked[zone - 1] : 0) + (zone + 1 < asked.length ? asked[zone + 1] : 0);
}

/**
 * Learns the response of a unit from its moves: least squares for what a zone does by its own keys and by its neighbours',
 * held to what is usual as far as little was seen.
 * @param noise standard deviation of a density as read.
 */
export function learnResponse(moves: readonly SeenMove[], noise: number): KeyResponse {
  const { gain, neighbour } = UNKNOWN_RESPONSE;
  // Own effect g(1 − 2n) and the neighbours' g·n are linear; their doubts follow from those of gain and share.
  const prior = [gain * (1 - 2 * neighbour), gain * neighbour];
  const doubt = [GAIN.doubt ** 2, (gain * NEIGHBOUR.doubt) ** 2];
  const variance = 2 * noise * noise;
  let a = 1 / doubt[0];
  let b = 0;
  let d = 1 / doubt[1];
  let p = prior[0] / doubt[0];
  let q = prior[1] / doubt[1];
  for (const { asked, seen } of moves)
    for (let zone = 0; zone < asked.length; zone++) {
      if (!Number.isFinite(seen[zone])) continue;
      const own = asked[zone];
      const others = beside(asked, zone);
      // Keys are not all alike: what each does on its own counts as noise that grows with the move.
      const weight = 1 / (variance + (0.25 * own) ** 2);
      a += weight * own * own;
      b += weight * own * others;
      d += weight * others * others;
      p += weight * own * seen[zone];
      q += weight * others * seen[zone];
    }
  const determinant = a * d - b * b;
  const own = (d * p - b * q) / determinant;
  const other = (a * q - b * p) / determinant;
  const total = clamp(own + 2 * other, GAIN);
  return { gain: total, neighbour: clamp(other / total, NEIGHBOUR) };
}

function clamp(value: number, { least, most }: { readonly least: number; readonly most: number }): number {
  return Math.min(most, Math.max(least, value));
}

/** What a response makes of a move, by zone. At the edges of the sheet there is no neighbour to give ink to. */
export function respond({ gain, neighbour }: KeyResponse, asked: ArrayLike<number>): Float64Array {
  return Float64Array.from({ length: asked.length }, (_, zone) => {
    const neighbours = (zone > 0 ? 1 : 0) + (zone + 1 < asked.length ? 1 : 0);
    return gain * ((1 - neighbours * neighbour) * asked[zone] + neighbour * beside(asked, zone));
  });
}

/**
 * What is to be asked for so that `wanted` comes about, each zone within the greatest move: by least squares, held back
 * where the neighbours would undo it.
 */
export function askFor(response: KeyResponse, wanted: ArrayLike<number>, greatest: number): Float64Array {
  const zones = wanted.length;
  // Columns of what each zone's move does, then the normal equations.
  const effects = Array.from({ length: zones }, (_, zone) => {
    const one = new Float64Array(zones);
    one[zone] = 1;
    return respond(response, one);
  });
  const dot = (a: ArrayLike<number>, b: ArrayLike<number>): number => {
    let sum = 0;
    for (let zone = 0; zone < zones; zone++) sum += a[zone] * b[zone];
    return sum;
  };
  const held = HELD_BACK * response.gain ** 2;
  const matrix = new Float64Array(zones * zones);
  effects.forEach((row, i) =>
    effects.forEach((column, j) => (matrix[i * zones + j] = dot(row, column) + (i === j ? held : 0))),
  );
  const right = Float64Array.from(effects, (row) => dot(row, wanted));
  return solvePositiveDefinite(matrix, zones, right).map((change) =>
    Math.min(greatest, Math.max(-greatest, change)),
  );
}
