import { createRandom, shuffle } from '../numerics/random.ts';
import { takeRows } from './chooseSmoothing.ts';
import type { SplineData } from './projectedKernel.ts';

const MOST_ROWS = 800;

/** What a further member of a committee is fitted to: of large charts some rows do, since where models part is sought. */
export function committeePart(data: SplineData, seed: number): SplineData {
  return takeRows(data, shuffle([...data.counts.keys()], createRandom(seed)).slice(0, MOST_ROWS));
}
