import { join } from 'node:path';
import { defineConfig } from 'vitest/config';

const exclude = ['**/node_modules/**', 'var/**'];

export default defineConfig({
  resolve: { alias: { '@': join(import.meta.dirname, 'web') } },
  test: {
    // A guard against hanging: on a machine that others use a minute is soon over.
    testTimeout: 300_000,
    hookTimeout: 300_000,
    maxWorkers: 2,
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
          include: ['{store,services,jobs,cli,demo,web}/**/*.test.ts'],
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
