import { FROM_BRIDGE, FROM_DESK, PROTOCOL } from './protocol.ts';

/** The messages as JSON Schema, as docs/instrument-bridge.schema.json publishes them. */
export function protocolSchema(): string {
  const schema = {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: `Melto instrument protocol ${PROTOCOL}`,
    description: 'What a reading desk and an instrument bridge say to each other: docs/instrument-bridge.md',
    $defs: { fromDesk: FROM_DESK, fromBridge: FROM_BRIDGE },
    anyOf: [{ $ref: '#/$defs/fromDesk' }, { $ref: '#/$defs/fromBridge' }],
  };
  return `${JSON.stringify(schema, null, 2)}\n`;
}
