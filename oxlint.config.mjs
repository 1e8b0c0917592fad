import { defineConfig } from 'oxlint';

/** Which packages each folder may import (docs/decisions/0001); everything else of ours is an error. */
const LAYERS = {
  core: [],
  simulator: ['core'],
  bridge: ['core', 'simulator'],
  paper: ['core'],
  store: ['core'],
  threads: ['core'],
  services: ['core', 'paper', 'store'],
  jobs: ['core', 'services', 'demo', 'threads'],
  demo: ['core', 'services', 'simulator'],
  web: ['bridge', 'core', 'services'],
  cli: ['core', 'paper', 'simulator', 'threads'],
};
const ALL = Object.keys(LAYERS);

/** The rooms of `services`, the ground first: each may import those before it (docs/architecture.md). */
const ROOMS = [
  'kernel',
  'people',
  'ledger',
  'light',
  'charts',
  'reading',
  'calibration',
  'profile',
  'lists',
  'eye',
  'watch',
  'conformity',
  'wedges',
  'proof',
  'press',
  'judging',
  'house',
  'overview',
];
/** Can be left out: only the composition, the start and what serves a sample house know it. */
const SIMULATED = 'simulated';
const KNOW_SIMULATED = [
  'services/src/composition.ts',
  'services/src/house/migrate.ts',
  'services/src/house/houseCommand.ts',
];

/** A rule is told once for a file, by the last override that fits: what restricts imports is told together. */
const restrict = (forbidden, extra = [], paths = []) => ({
  'no-restricted-imports': [
    'error',
    {
      paths,
      patterns: [
        ...forbidden.map((name) => ({
          group: [`@melto/${name}`, `@melto/${name}/**`, `**/${name}/src/**`],
          message: `this folder may not import ${name}`,
        })),
        ...extra,
      ],
    },
  ],
});

const forbiddenIn = (folder) => ALL.filter((name) => name !== folder && !LAYERS[folder].includes(name));

const OWN_LINKS = { name: 'next/link', message: 'web/ui/Link fetches nothing ahead' };
const BROWSER = [
  'web/features/**/*.{ts,tsx}',
  'web/ui/**/*.{ts,tsx}',
  'web/workers/**/*.ts',
  'web/endpoints/**/*.ts',
];
const BROWSER_KNOWS = ['core', 'services', 'bridge'];
const FROM_SERVER = [
  {
    group: ['@melto/services/**'],
    allowTypeImports: true,
    message: 'browser code takes types only from services',
  },
  {
    group: ['@melto/bridge/**', '!@melto/bridge/protocol', '!@melto/bridge/bridgeClient'],
    message: 'pages know the instrument protocol, not how a bridge serves it',
  },
];

const RECOMMENDED = [
  ...['ban-ts-comment', 'no-array-constructor', 'no-duplicate-enum-values', 'no-empty-object-type'],
  ...['no-explicit-any', 'no-extra-non-null-assertion', 'no-misused-new', 'no-namespace'],
  ...['no-non-null-asserted-optional-chain', 'no-require-imports', 'no-this-alias'],
  ...['no-unnecessary-type-constraint', 'no-unsafe-declaration-merging', 'no-unsafe-function-type'],
  ...['no-wrapper-object-types', 'prefer-as-const', 'prefer-namespace-keyword', 'triple-slash-reference'],
  ...['consistent-type-imports', 'no-floating-promises'],
].map((rule) => `typescript/${rule}`);
const PLAIN = ['no-var', 'prefer-const', 'prefer-rest-params', 'prefer-spread', 'no-unused-expressions'];

export default defineConfig({
  plugins: ['typescript', 'import', 'react'],
  categories: { correctness: 'off' },
  ignorePatterns: ['**/node_modules/**', 'var/**', 'web/.next/**', 'web/next-env.d.ts'],
  rules: {
    ...Object.fromEntries([...RECOMMENDED, ...PLAIN].map((rule) => [rule, 'error'])),
    'no-unused-vars': [
      'error',
      { args: 'after-used', argsIgnorePattern: '^_', varsIgnorePattern: '^_', caughtErrors: 'all' },
    ],
    'import/no-cycle': 'error',
    'import/no-default-export': 'error',
    'max-lines': ['warn', { max: 300, skipBlankLines: true, skipComments: true }],
    'max-lines-per-function': ['warn', { max: 100, skipBlankLines: true, skipComments: true }],
  },
  overrides: [
    {
      // What other programs ask to be a default.
      files: ['web/app/**/*.{ts,tsx}', '**/*.config.{ts,mjs}', '**/*.mjs', '**/*.cjs', 'web/proxy.ts'],
      rules: { 'import/no-default-export': 'off' },
    },
    {
      files: ['**/*.{js,mjs,cjs}'],
      rules: { 'typescript/no-require-imports': 'off', 'max-lines': 'off', 'max-lines-per-function': 'off' },
    },
    {
      files: ['**/*.test.{ts,tsx}', 'e2e/**', 'bench/**', 'core/test/**', '**/data/**', 'simulator/src/**'],
      rules: { 'max-lines': 'off', 'max-lines-per-function': 'off' },
    },
    {
      // What the setup of these tests stubs would be taken from all that come after.
      files: ['web/**/*.test.tsx'],
      rules: {
        'no-restricted-properties': [
          'error',
          { object: 'vi', property: 'unstubAllGlobals', message: 'put back what you have stubbed yourself' },
        ],
      },
    },
    {
      files: ['web/**/*.{ts,tsx}'],
      rules: { 'react/rules-of-hooks': 'error', 'react/exhaustive-deps': 'error' },
    },
    ...ALL.map((folder) => ({
      files: [`${folder}/**/*.{ts,tsx}`],
      excludeFiles: ['**/*.test.ts', 'core/test/**', 'services/src/simulated/**'],
      rules: restrict(
        forbiddenIn(folder),
        folder === 'core' ? [{ group: ['node:*', 'fs', 'path'], message: 'core is pure computation' }] : [],
      ),
    })),
    ...ROOMS.map((room, height) => ({
      files: [`services/src/${room}/**/*.ts`],
      excludeFiles: ['**/*.test.ts', ...KNOW_SIMULATED],
      rules: restrict(forbiddenIn('services'), [
        ...[...ROOMS.slice(height + 1), SIMULATED].map((above) => ({
          group: [`../${above}/**`, `../../${above}/**`],
          message: `${room} stands below ${above}`,
        })),
        {
          group: ['**/composition.ts', '**/testing/*'],
          message: 'rooms are put together, not the other way',
        },
      ]),
    })),
    {
      files: ['services/src/simulated/**/*.ts'],
      rules: restrict(ALL.filter((name) => !['services', 'core', 'store', 'simulator'].includes(name))),
    },
    {
      // SQL stands in store.
      files: ['{services,jobs,demo,web,cli}/**/*.{ts,tsx}'],
      excludeFiles: ['**/*.test.{ts,tsx}', 'services/src/testing/**'],
      rules: {
        'no-restricted-properties': [
          'error',
          ...['database', 'sql'].flatMap((object) =>
            ['rows', 'change'].map((property) => ({ object, property, message: 'SQL stands in store' })),
          ),
        ],
      },
    },
    {
      // Pages that the server draws.
      files: ['web/app/**/*.tsx'],
      rules: restrict(forbiddenIn('web'), [], [OWN_LINKS]),
    },
    {
      // Code that runs in the browser knows core only.
      files: BROWSER,
      rules: restrict(
        ALL.filter((name) => !['web', ...BROWSER_KNOWS].includes(name)),
        FROM_SERVER,
        [OWN_LINKS],
      ),
    },
    {
      files: ['web/ui/Link.tsx'],
      rules: restrict(
        ALL.filter((name) => !['web', ...BROWSER_KNOWS].includes(name)),
        FROM_SERVER,
      ),
    },
  ],
});
