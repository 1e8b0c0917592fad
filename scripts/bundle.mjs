// Bundles the entries that run outside Next with esbuild: `node scripts/bundle.mjs cli` or `… server`.
import { build } from 'esbuild';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const ENTRIES = {
  cli: { melto: 'cli/src/main.ts', inkIntents: 'core/src/profile/inkIntents.ts' },
  server: {
    runner: 'jobs/src/runner.ts',
    worker: 'jobs/src/worker.ts',
    migrate: 'services/src/house/migrate.ts',
    houseCommand: 'services/src/house/houseCommand.ts',
    houseVerify: 'jobs/src/houseVerify.ts',
    houseLeave: 'jobs/src/houseLeave.ts',
    drawFile: 'paper/src/report/drawFile.ts',
    readUpload: 'paper/src/readUpload.ts',
    inkIntents: 'core/src/profile/inkIntents.ts',
    instruments: 'bridge/src/simulated/main.ts',
  },
};
const which = process.argv[2] ?? 'server';
const common = {
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  // Packages with native parts or data files of their own stay in node_modules.
  external: [
    'sharp',
    'mysql2',
    '@node-rs/argon2',
    'mysql2/promise',
    'bwip-js',
    'bwip-js/node',
    '@pdf-lib/fontkit',
    'pdf-lib',
    'commander',
    'piscina',
    'ws',
    '@react-pdf/renderer',
    'react',
  ],
  logLevel: 'warning',
  absWorkingDir: root,
};
await build({
  ...common,
  entryPoints: ENTRIES[which],
  outdir: join(root, 'var/cache', which),
  outExtension: { '.js': '.mjs' },
  splitting: true,
  chunkNames: 'chunk-[hash]',
});
