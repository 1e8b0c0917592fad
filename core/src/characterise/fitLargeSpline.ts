import { createRandom, shuffle } from '../numerics/random.ts';
import { fitSpline } from './fitSpline.ts';
import { takeRows } from './chooseSmoothing.ts';
import type { SplineData } from './projectedKernel.ts';
import type { RadialSpline } from './radialSpline.ts';

/** Rows that one spline takes: time grows with the cube, memory with the square. */
const BLOCK_ROWS = 3000;

/**
 * The smoothing spline of `data`; where it has many rows, the mean of splines that each take a part of them. Corners of
 * the device's cube and rows with many readings are in every part, so that none has to reach beyond its data.
 */
export function fitLargeSpline(data: SplineData, smoothing: number, blockRows = BLOCK_ROWS): RadialSpline {
  const rows = data.counts.length;
  if (rows <= blockRows) return fitSpline(data, smoothing);
  const { held, dealt } = heldAndDealt(data);
  return fitInParts(data, smoothing, Math.ceil(dealt.length / Math.max(1, blockRows - held.length)));
}

/** The mean of splines that each take one of so many parts of the rows. */
export function fitInParts(data: SplineData, smoothing: number, blocks: number): RadialSpline {
  if (blocks <= 1) return fitSpline(data, smoothing);
  const { held, dealt } = heldAndDealt(data);
  const order = shuffle(dealt, createRandom(1));
  const parts = Array.from({ length: blocks }, (_, block) =>
    fitSpline(takeRows(data, [...held, ...order.filter((_, i) => i % blocks === block)]), smoothing),
  );
  return meanOf(parts);
}

function heldAndDealt(data: SplineData): { readonly held: number[]; readonly dealt: number[] } {
  const held: number[] = [];
  const dealt: number[] = [];
  for (let row = 0; row < data.counts.length; row++) (isHeld(data, row) ? held : dealt).push(row);
  return { held, dealt };
}

const HELD_COUNT = 4;
const HELD_MOST = 64;

function isHeld({ centres, counts, inputs }: SplineData, row: number): boolean {
  const at = centres.subarray(row * inputs, (row + 1) * inputs);
  return at.every((value) => value < 0.01 || value > 0.99) || (counts[row] >= HELD_COUNT && row < HELD_MOST);
}

/** A spline over the centres of all. */
function meanOf(parts: readonly RadialSpline[]): RadialSpline {
  const { inputs, outputs } = parts[0];
  const joined = (name: 'centres' | 'alpha', factor: number): Float64Array =>
    Float64Array.from(parts.flatMap((part) => Array.from(part[name], (value) => value * factor)));
  const beta = new Float64Array((inputs + 1) * outputs);
  for (const part of parts) part.beta.forEach((value, i) => (beta[i] += value / parts.length));
  return { inputs, outputs, centres: joined('centres', 1), alpha: joined('alpha', 1 / parts.length), beta };
}
