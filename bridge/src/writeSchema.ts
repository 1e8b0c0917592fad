import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { format, resolveConfig } from 'prettier';
import { protocolSchema } from './schema.ts';

// `npm run bridge-schema` writes the published schema anew.
const file = join(import.meta.dirname, '../../docs/instrument-bridge.schema.json');
writeFileSync(file, await format(protocolSchema(), { ...(await resolveConfig(file)), parser: 'json' }));
