import tseslint from 'typescript-eslint';
import hooks from 'eslint-plugin-react-hooks';

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

const restrict = (forbidden, extra = []) => ({
  '@typescript-eslint/no-restricted-imports': [
    'error',
    {
      patterns: [
        ...forbidden.map((name) => ({
          group: [`@melto/${name}`, `@melto/${name}/*`, `**/${name}/src/*`],
          message: `this folder may not import ${name}`,
        })),
        ...extra,
      ],
    },
  ],
});

const forbiddenIn = (folder) => ALL.filter((name) => name !== folder && !LAYERS[folder].includes(name));

export default tseslint.config(
  { ignores: ['**/node_modules/**', 'var/**', 'web/.next/**', 'web/next-env.d.ts'] },
  ...tseslint.configs.recommended,
  {
    files: ['**/*.{ts,tsx}'],
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/consistent-type-imports': 'error',
      'max-lines': ['warn', { max: 300, skipBlankLines: true, skipComments: true }],
      'max-lines-per-function': ['warn', { max: 100, skipBlankLines: true, skipComments: true }],
      'no-restricted-syntax': [
        'error',
        { selector: 'ExportDefaultDeclaration', message: 'named exports only' },
      ],
    },
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
    plugins: { 'react-hooks': hooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
  {
    files: ['web/app/**/*.{ts,tsx}', '**/*.config.ts'],
    rules: { 'no-restricted-syntax': 'off' },
  },
  ...ALL.map((folder) => ({
    files: [`${folder}/**/*.{ts,tsx}`],
    ignores: ['**/*.test.ts', 'core/test/**', 'services/src/simulated/**'],
    rules: restrict(
      forbiddenIn(folder),
      folder === 'core' ? [{ group: ['node:*', 'fs', 'path'], message: 'core is pure computation' }] : [],
    ),
  })),
  ...ROOMS.map((room, height) => ({
    files: [`services/src/${room}/**/*.ts`],
    ignores: ['**/*.test.ts', ...KNOW_SIMULATED],
    rules: restrict(forbiddenIn('services'), [
      ...[...ROOMS.slice(height + 1), SIMULATED].map((above) => ({
        group: [`../${above}/*`, `../../${above}/*`],
        message: `${room} stands below ${above}`,
      })),
      { group: ['**/composition.ts', '**/testing/*'], message: 'rooms are put together, not the other way' },
    ]),
  })),
  {
    files: ['services/src/simulated/**/*.ts'],
    rules: restrict(ALL.filter((name) => !['services', 'core', 'store', 'simulator'].includes(name))),
  },
  {
    files: ['web/**/*.tsx'],
    ignores: ['web/ui/Link.tsx'],
    rules: {
      'no-restricted-imports': ['error', { name: 'next/link', message: 'web/ui/Link fetches nothing ahead' }],
    },
  },
  {
    // SQL stands in store.
    files: ['{services,jobs,demo,web,cli}/**/*.{ts,tsx}'],
    ignores: ['**/*.test.{ts,tsx}', 'services/src/testing/**'],
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
    // Code that runs in the browser knows core only.
    files: [
      'web/features/**/*.{ts,tsx}',
      'web/ui/**/*.{ts,tsx}',
      'web/workers/**/*.ts',
      'web/endpoints/**/*.ts',
    ],
    rules: restrict(
      ALL.filter((name) => !['web', 'core', 'services', 'bridge'].includes(name)),
      [
        {
          group: ['@melto/services/*'],
          allowTypeImports: true,
          message: 'browser code takes types only from services',
        },
        {
          group: ['@melto/bridge/*', '!@melto/bridge/protocol', '!@melto/bridge/bridgeClient'],
          message: 'pages know the instrument protocol, not how a bridge serves it',
        },
      ],
    ),
  },
);
