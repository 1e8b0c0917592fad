import { appendFileSync, existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

/** What the tests said of a mutant: noticed by a failing test, by never ending, or not at all. */
export type Outcome = 'noticed' | 'endless' | 'survived';

/** The outcomes so far, by the mutant's number. */
export function readOutcomes(folder: string): Map<number, Outcome> {
  const path = join(folder, 'outcomes.jsonl');
  if (!existsSync(path)) return new Map();
  const lines = readFileSync(path, 'utf8').trim().split('\n').filter(Boolean);
  return new Map(lines.map((line) => JSON.parse(line) as [number, Outcome]));
}

/** Keeps an outcome. */
export function keepOutcome(folder: string, id: number, outcome: Outcome): void {
  appendFileSync(join(folder, 'outcomes.jsonl'), `${JSON.stringify([id, outcome])}\n`);
}
