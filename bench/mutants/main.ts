// How many small wrong changes of core and services the tests notice:
// `scripts/withTestDatabase.sh npx tsx bench/mutants/main.ts [mutants per room] [seed] [core or services]`.
// Goes on where it was stopped; what was found stands in var/mutants/.
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { drawAll, ROOT } from './draw.ts';
import { EQUIVALENT } from './equivalent.ts';
import { readOutcomes, type Outcome } from './outcomes.ts';

const COUNT = Number(process.argv[2] ?? 110);
const SEED = Number(process.argv[3] ?? 1);
const ONLY = process.argv[4];
const STILL_MS = 180_000;

const folder = join(ROOT, 'var', 'mutants', `${String(COUNT)}-${String(SEED)}`);
mkdirSync(folder, { recursive: true });
const mutants = drawAll(COUNT, SEED, ONLY);

/** Runs a tester until it has tried all mutants or stands still: an endless loop is a mutant that was noticed. */
async function runTester(): Promise<void> {
  await new Promise<void>((resolve) => {
    const tester = spawn(
      'npx',
      [
        'tsx',
        join(import.meta.dirname, 'tester.ts'),
        folder,
        String(COUNT),
        String(SEED),
        ...(ONLY ? [ONLY] : []),
      ],
      {
        stdio: 'inherit',
        detached: true,
        cwd: ROOT,
      },
    );
    let last = '';
    let since = Date.now();
    const watch = setInterval(() => {
      const now = existsSync(join(folder, 'now.json')) ? readFileSync(join(folder, 'now.json'), 'utf8') : '';
      if (now !== last) {
        last = now;
        since = Date.now();
      } else if (now !== '' && Date.now() - since > STILL_MS && tester.pid !== undefined)
        process.kill(-tester.pid, 'SIGKILL');
    }, 2000);
    tester.on('exit', () => {
      clearInterval(watch);
      resolve();
    });
  });
}

const isDone = (): boolean => {
  const known = readOutcomes(folder);
  return mutants.every(({ id }) => known.has(id));
};
while (!isDone()) await runTester();

const outcomes = readOutcomes(folder);
const isEquivalent = (file: string, original: string, changed: string): boolean =>
  EQUIVALENT.some((known) => known.file === file && known.original === original && known.changed === changed);
for (const room of ['core', 'services'] as const) {
  const own = mutants.filter((mutant) => mutant.room === room);
  if (own.length === 0) continue;
  const same = own.filter(({ file, original, changed }) => isEquivalent(file, original, changed));
  const counted = own.filter((mutant) => !same.includes(mutant));
  const noticed = counted.filter(({ id }) => (outcomes.get(id) as Outcome) !== 'survived');
  const share = (100 * noticed.length) / counted.length;
  console.log(
    `${room}: ${String(noticed.length)} of ${String(counted.length)} noticed (${share.toFixed(1)} %), ${String(same.length)} that change nothing left out`,
  );
  for (const { id, file, line, original, changed } of counted)
    if (outcomes.get(id) === 'survived')
      console.log(
        `  ${file}:${String(line)}  ${original.replace(/\s+/g, ' ').slice(0, 70)}  →  ${changed.replace(/\s+/g, ' ').slice(0, 70)}`,
      );
}
