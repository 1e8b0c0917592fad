import { join } from 'node:path';
import { defineConfig } from '@playwright/test';

const root = join(import.meta.dirname, '..');
const databaseUrl = process.env['MELTO_TEST_DATABASE_URL'];
if (databaseUrl === undefined)
  throw new Error(
    'MELTO_TEST_DATABASE_URL is not set: run ./test, or scripts/withTestDatabase.sh before the runner',
  );
const port = 3411;

export default defineConfig({
  testDir: import.meta.dirname,
  timeout: 180_000,
  expect: { timeout: 30_000 },
  workers: 1,
  outputDir: join(root, 'var/e2e'),
  reporter: [['list'], ['json', { outputFile: join(root, 'var/playwright.json') }]],
  // The way through the job starts in an empty house; the desk's tests add to it.
  projects: [
    { name: 'way', testMatch: 'wayThroughTheJob.spec.ts' },
    { name: 'desk', testMatch: 'readingDesk.spec.ts', dependencies: ['way'] },
    { name: 'press', testMatch: 'pressToKnownState.spec.ts', dependencies: ['desk'] },
    { name: 'prove', testMatch: 'proveAndKeep.spec.ts', dependencies: ['press'] },
  ],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    reducedMotion: 'reduce',
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
  webServer: {
    command: `node ${join(root, 'e2e/serve.mjs')}`,
    url: `http://127.0.0.1:${port}/api/health`,
    timeout: 120_000,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 5000 },
    env: {
      MELTO_ROOT: root,
      MELTO_DATABASE_URL: databaseUrl.replace(/\/[^/]*$/, '/melto_e2e'),
      MELTO_E2E_ADMIN_URL: databaseUrl,
      MELTO_PORT: String(port),
      MELTO_SEED: process.env['MELTO_SEED'] ?? '1',
      NODE_ENV: 'production',
    },
    stdout: 'pipe',
  },
});
