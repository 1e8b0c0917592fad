import tseslint from 'typescript-eslint';

/** Which packages each folder may import (docs/decisions/0002); everything else of ours is an error. */
const LAYERS = {
  core: [],
  simulator: ['core'],
  paper: ['core'],
  store: ['core'],
  services: ['core', 'paper', 'store'],
  jobs: ['core', 'services', 'demo'],
  demo: ['core', 'services'],
  web: ['core', 'services'],
  cli: ['core', 'paper', 'simulator'],
};
/** The one file of `services` that may know the simulator. */
const COMPOSITION = 'services/src/composition.ts';
const ALL = Object.keys(LAYERS);

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

export default tseslint.config(
  { ignores: ['**/node_modules/**', 'var/**', 'web/.next/**', 'web/next-env.d.ts'] },
  ...tseslint.configs.recommended,
  {
    files: ['**/*.{ts,tsx}'],
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/consistent-type-imports': 'error',
      'no-restricted-syntax': [
        'error',
        { selector: 'ExportDefaultDeclaration', message: 'named exports only' },
      ],
    },
  },
  {
    files: ['web/app/**/*.{ts,tsx}', '**/*.config.ts'],
    rules: { 'no-restricted-syntax': 'off' },
  },
  ...ALL.map((folder) => ({
    files: [`${folder}/**/*.{ts,tsx}`],
    ignores: ['**/*.test.ts', 'core/test/**', COMPOSITION],
    rules: restrict(
      ALL.filter((name) => name !== folder && !LAYERS[folder].includes(name)),
      folder === 'core' ? [{ group: ['node:*', 'fs', 'path'], message: 'core is pure computation' }] : [],
    ),
  })),
  {
    // Code that runs in the browser knows core only.
    files: ['web/features/**/*.{ts,tsx}', 'web/ui/**/*.{ts,tsx}', 'web/workers/**/*.ts'],
    rules: restrict(
      ALL.filter((name) => name !== 'web' && name !== 'core' && name !== 'services'),
      [
        {
          group: ['@melto/services/*'],
          allowTypeImports: true,
          message: 'browser code takes types only from services',
        },
      ],
    ),
  },
);
