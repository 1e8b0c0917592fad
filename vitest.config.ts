import { join } from 'node:path';
import { defineConfig } from 'vitest/config';
import { BaseSequencer } from 'vitest/node';
import type { TestSpecification } from 'vitest/node';

const exclude = ['**/node_modules/**', 'var/**'];

/** Short files that take long. A fresh machine knows only how large files are, and would leave them for the end. */
const LONG = [
  'demo/src/sampleHouse.test.ts',
  'store/src/migrate.test.ts',
  'threads/src/intentThreads.test.ts',
  'core/src/gamut/gamutBody.test.ts',
];

class LongFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const sorted = await super.sort(files);
    const isLong = ({ moduleId }: TestSpecification): boolean => LONG.some((name) => moduleId.endsWith(name));
    return [...sorted.filter(isLong), ...sorted.filter((file) => !isLong(file))];
  }
}

export default defineConfig({
  resolve: { alias: { '@': join(import.meta.dirname, 'web') } },
  test: {
    // A guard against hanging: on a machine that others use a minute is soon over.
    testTimeout: 300_000,
    hookTimeout: 300_000,
    maxWorkers: 2,
    sequence: { sequencer: LongFirst },
    reporters: ['default', ['json', { outputFile: 'var/vitest.json' }]],
    projects: [
      {
        // Pure computation: files share one world, since none leaves anything behind in it.
        extends: true,
        test: {
          name: 'computation',
          include: ['{core,simulator,paper}/**/*.test.ts'],
          exclude,
          isolate: false,
        },
      },
      {
        extends: true,
        test: {
          name: 'node',
          include: ['{bridge,store,services,jobs,threads,cli,demo,web}/**/*.test.ts'],
          exclude,
          isolate: false,
        },
      },
      {
        extends: true,
        test: {
          name: 'browser parts',
          include: ['web/**/*.test.tsx'],
          exclude,
          isolate: false,
          environment: 'jsdom',
          setupFiles: ['web/testing/setup.ts'],
        },
      },
    ],
  },
});
