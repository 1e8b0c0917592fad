import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { protocolSchema } from './schema.ts';

// `npm run bridge-schema` writes the published schema anew, as the formatter has it.
const root = join(import.meta.dirname, '../..');
const file = join(root, 'docs/instrument-bridge.schema.json');
writeFileSync(file, protocolSchema());
execFileSync(join(root, 'node_modules/.bin/oxfmt'), [file], { cwd: root });
