// Tries the mutants one after the other in one Vitest that stays open; started and watched by main.ts.
import { existsSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { createVitest, type TestSpecification } from 'vitest/node';
import { BaseSequencer } from 'vitest/node';
import { weave } from './candidates.ts';
import { drawAll, ROOT } from './draw.ts';
import { keepOutcome, readOutcomes } from './outcomes.ts';

const [folder = '', count = '', seed = '', only] = process.argv.slice(2);
const mutants = drawAll(Number(count), Number(seed), only);
const notes = join(folder, 'met');
const took = join(folder, 'took.json');

const durations = new Map<string, number>(
  existsSync(took) ? (JSON.parse(readFileSync(took, 'utf8')) as [string, number][]) : [],
);
const durationOf = ({ moduleId }: TestSpecification): number => durations.get(moduleId) ?? 0;
/** Test files that a mutant may take in all: most are noticed at once, and each that is not would take minutes. */
const BUDGET_MS = 60_000;

/** The test files that come by a mutant, those beside it first, then the quick ones, as far as the budget goes. */
function filesFor(file: string, met: ReadonlySet<string>): TestSpecification[] {
  const beside = ({ moduleId }: TestSpecification): number =>
    dirname(moduleId) === dirname(join(ROOT, file)) ? 0 : 1;
  let left = BUDGET_MS;
  return specifications
    .filter(({ moduleId }) => met.has(moduleId))
    .sort((a, b) => beside(a) - beside(b) || durationOf(a) - durationOf(b))
    .filter((specification, place) => {
      left -= durationOf(specification);
      return place === 0 || left > 0;
    });
}

/** Vitest sorts by what it remembers; here the order is the one that was asked for. */
class AsAsked extends BaseSequencer {
  override sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    return Promise.resolve(files);
  }
}

const vitest = await createVitest(
  'test',
  {
    config: false,
    root: ROOT,
    watch: false,
    include: ['{core,simulator,paper,store,services,jobs,cli,demo,web}/**/*.test.ts'],
    exclude: ['**/node_modules/**', 'var/**', 'services/test/rooms.test.ts'],
    setupFiles: [join(import.meta.dirname, 'switch.ts')],
    testTimeout: 60_000,
    hookTimeout: 120_000,
    maxWorkers: 2,
    bail: 1,
    reporters: [{}],
    sequence: { sequencer: AsAsked },
  },
  {
    resolve: { alias: { '@': join(ROOT, 'web') } },
    plugins: [
      {
        name: 'mutants',
        enforce: 'pre',
        transform(code: string, id: string) {
          const own = mutants.filter(({ file }) => join(ROOT, file) === id);
          return own.length > 0 ? { code: weave(code, own), map: null } : undefined;
        },
      },
    ],
  },
);
const specifications = await vitest.globTestSpecifications();

/** Runs test files with one mutant on, 0 for none; true where all of them passed. */
async function passes(files: readonly TestSpecification[], mutant: number): Promise<boolean> {
  vitest.provide('mutantOn', mutant);
  vitest.provide('mutantNotes', notes);
  const { testModules, unhandledErrors } = await vitest.runTestSpecifications([...files], false);
  if (mutant === 0)
    for (const module of testModules)
      durations.set(module.moduleId, module.diagnostic().duration + module.diagnostic().collectDuration);
  // Vitest remembers what failed in earlier runs. What is not done was called off by a failure, of which not all is told.
  const asked = new Set(files.map(({ moduleId }) => moduleId));
  const done = testModules.filter((module) => asked.has(module.moduleId));
  const passed = done.filter((module) => ['passed', 'skipped'].includes(module.state()));
  return unhandledErrors.length === 0 && passed.length === asked.size;
}

if (!existsSync(took)) {
  rmSync(notes, { recursive: true, force: true });
  if (!(await passes(specifications, 0))) throw new Error('The tests fail without a mutant.');
  writeFileSync(took, JSON.stringify([...durations]));
}
const metBy = new Map<number, Set<string>>();
for (const name of readdirSync(notes)) {
  const { path, met } = JSON.parse(readFileSync(join(notes, name), 'utf8')) as {
    path: string;
    met: number[];
  };
  for (const id of met) metBy.set(id, (metBy.get(id) ?? new Set()).add(path));
}

const now = join(folder, 'now.json');
if (existsSync(now)) {
  // The tester before this one was ended by force, in this mutant.
  const { id } = JSON.parse(readFileSync(now, 'utf8')) as { id: number };
  if (!readOutcomes(folder).has(id)) keepOutcome(folder, id, 'endless');
}
const known = readOutcomes(folder);
for (const { id, file, line } of mutants) {
  if (known.has(id)) continue;
  writeFileSync(now, JSON.stringify({ id, begun: Date.now() }));
  const begun = Date.now();
  const files = filesFor(file, metBy.get(id) ?? new Set());
  const outcome = files.length > 0 && !(await passes(files, id)) ? 'noticed' : 'survived';
  keepOutcome(folder, id, outcome);
  console.log(
    `${String(id)} ${outcome} ${file}:${String(line)} ${String(files.length)} files ${((Date.now() - begun) / 1000).toFixed(1)} s`,
  );
}
rmSync(now, { force: true });
await vitest.close();
