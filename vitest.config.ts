import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['{core,simulator,paper,store,services,jobs,cli,demo,web}/**/*.test.ts'],
    exclude: ['**/node_modules/**', 'var/**'],
    testTimeout: 60_000,
    hookTimeout: 120_000,
    maxWorkers: 2,
    reporters: ['default', ['json', { outputFile: 'var/vitest.json' }]],
  },
});
