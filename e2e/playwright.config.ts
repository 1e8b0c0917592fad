import { join } from 'node:path';
import { defineConfig } from '@playwright/test';

const root = join(import.meta.dirname, '..');
const databaseUrl = process.env['MELTO_TEST_DATABASE_URL'];
if (databaseUrl === undefined)
  throw new Error(
    'MELTO_TEST_DATABASE_URL is not set: run ./test, or scripts/withTestDatabase.sh before the runner',
  );

/** Houses, each with its own database, server and runner: what is done in one waits for nothing in the other. */
const HOUSES = { studio: 3411, press: 3421, own: 3431 } as const;
const address = (house: keyof typeof HOUSES): string => `http://127.0.0.1:${HOUSES[house]}`;

/** What the browser of the first person of the house of one's own keeps. */
export const OWN_SESSION = join(root, 'var/own-session.json');

const server = (house: keyof typeof HOUSES) => ({
  command: `node ${join(root, 'e2e/serve.mjs')}`,
  url: `${address(house)}/api/health`,
  timeout: 120_000,
  gracefulShutdown: { signal: 'SIGTERM', timeout: 5000 } as const,
  env: {
    MELTO_ROOT: root,
    MELTO_DATABASE_URL: databaseUrl.replace(/\/[^/]*$/, `/melto_e2e_${house}`),
    MELTO_E2E_ADMIN_URL: databaseUrl,
    MELTO_E2E_DATABASE: `melto_e2e_${house}`,
    MELTO_PORT: String(HOUSES[house]),
    MELTO_SEED: process.env['MELTO_SEED'] ?? '1',
    ...(house === 'own' ? { MELTO_SIMULATOR: 'off', MELTO_HOSTS: 'melto.example' } : {}),
    NODE_ENV: 'production',
  },
  stdout: 'pipe' as const,
});

export default defineConfig({
  testDir: import.meta.dirname,
  timeout: 900_000,
  // Guards against hanging, as those of the unit tests: a machine may be slow, and others may use it.
  expect: { timeout: 60_000 },
  // One for each house.
  workers: 3,
  outputDir: join(root, 'var/e2e'),
  reporter: [['list'], ['json', { outputFile: join(root, 'var/playwright.json') }]],
  // The way through the job starts in an empty house, and the desk's tests add to it; likewise the press and its proof. A house of one's own has no simulator.
  projects: [
    { name: 'way', testMatch: 'wayThroughTheJob.spec.ts', use: { baseURL: address('studio') } },
    {
      name: 'desk',
      testMatch: 'readingDesk.spec.ts',
      dependencies: ['way'],
      use: { baseURL: address('studio') },
    },
    {
      name: 'run',
      testMatch: 'atThePress.spec.ts',
      dependencies: ['way'],
      use: { baseURL: address('studio') },
    },
    {
      name: 'inks',
      testMatch: 'sixInks.spec.ts',
      dependencies: ['run', 'desk'],
      use: { baseURL: address('studio') },
    },
    { name: 'press', testMatch: 'pressToKnownState.spec.ts', use: { baseURL: address('press') } },
    {
      name: 'prove',
      testMatch: 'proveAndKeep.spec.ts',
      dependencies: ['press'],
      use: { baseURL: address('press') },
    },
    { name: 'door', testMatch: 'theDoor.spec.ts', use: { baseURL: address('own') } },
    {
      name: 'own',
      testMatch: 'ownHouse.spec.ts',
      dependencies: ['door'],
      use: { baseURL: address('own'), storageState: OWN_SESSION },
    },
    {
      name: 'look',
      testMatch: 'seenBeforePrint.spec.ts',
      dependencies: ['own'],
      use: { baseURL: address('own'), storageState: OWN_SESSION },
    },
    {
      name: 'printer',
      testMatch: 'ownPrinter.spec.ts',
      dependencies: ['own'],
      use: { baseURL: address('own'), storageState: OWN_SESSION },
    },
  ],
  use: {
    viewport: { width: 1280, height: 800 },
    reducedMotion: 'reduce',
    screenshot: 'only-on-failure',
    actionTimeout: 120_000,
    launchOptions: {
      // Debian's Chromium without its own windows: a third less of the processor than the whole one.
      executablePath: '/usr/bin/chromium-headless-shell',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        // A name that stands for a machine elsewhere: pages under it are in no secure context.
        '--host-resolver-rules=MAP melto.example 127.0.0.1',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
  webServer: [server('studio'), server('press'), server('own')],
});
