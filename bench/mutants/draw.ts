import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { createRandom, shuffle } from '@melto/core/numerics/random';
import { candidatesOf, type Mutant } from './candidates.ts';

export type Room = 'core' | 'services';
export type DrawnMutant = Mutant & { id: number; room: Room };

/** The root of the project. */
export const ROOT = join(import.meta.dirname, '..', '..');

/**
 * `count` mutants of a room, drawn by `seed` out of all there could be: the more a file decides, the more of
 * them. Published tables are left out: one figure in thousands says nothing of the tests.
 */
export function drawMutants(room: Room, count: number, seed: number, firstId: number): DrawnMutant[] {
  const folder = join(ROOT, room, 'src');
  const files = readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((path) => /(?<!\.test)\.ts$/.test(path) && !/(^|\/)(data|testing)\//.test(path))
    .sort();
  const all = files.flatMap((path) => {
    const file = join(folder, path);
    return candidatesOf(relative(ROOT, file), readFileSync(file, 'utf8'));
  });
  shuffle(all, createRandom(seed));
  const drawn: Mutant[] = [];
  for (const mutant of all) {
    if (drawn.length === count) break;
    const meets = drawn.some(
      ({ file, start, end }) => file === mutant.file && start < mutant.end && mutant.start < end,
    );
    if (!meets) drawn.push(mutant);
  }
  return drawn.map((mutant, place) => ({ ...mutant, room, id: firstId + place }));
}

/** The mutants of a run, those of core first; of one room only where it is named. Numbers do not depend on it. */
export function drawAll(count: number, seed: number, only?: string): DrawnMutant[] {
  const core = drawMutants('core', count, seed, 1);
  const all = [...core, ...drawMutants('services', count, seed, core.length + 1)];
  return all.filter(({ room }) => only === undefined || room === only);
}
