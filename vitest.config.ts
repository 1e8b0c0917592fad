import { join } from 'node:path';
import { defineConfig } from 'vitest/config';

const exclude = ['**/node_modules/**', 'var/**'];

export default defineConfig({
  resolve: { alias: { '@': join(import.meta.dirname, 'web') } },
  test: {
    testTimeout: 60_000,
    hookTimeout: 120_000,
    maxWorkers: 2,
    reporters: ['default', ['json', { outputFile: 'var/vitest.json' }]],
    projects: [
      {
        extends: true,
        test: {
          name: 'node',
          include: ['{core,simulator,paper,store,services,jobs,cli,demo,web}/**/*.test.ts'],
          exclude,
        },
      },
      {
        extends: true,
        test: {
          name: 'browser parts',
          include: ['web/**/*.test.tsx'],
          exclude,
          environment: 'jsdom',
          setupFiles: ['web/testing/setup.ts'],
        },
      },
    ],
  },
});
