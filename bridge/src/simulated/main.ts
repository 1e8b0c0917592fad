import { DEFAULT_ADDRESS } from '../protocol.ts';
import { serveBridge } from '../serveBridge.ts';
import { simulatedBridgeInstruments } from './simulatedBridge.ts';

// The simulated instruments as a process of their own: MELTO_BRIDGE_PORT says where, MELTO_BRIDGE_JOURNAL where passes
// wait for a desk, MELTO_BRIDGE_PACE_MS lets a hand move by itself some time after it is asked.
const { MELTO_BRIDGE_PORT: port, MELTO_BRIDGE_JOURNAL: journal, MELTO_BRIDGE_PACE_MS: pace } = process.env;
const bridge = await serveBridge({
  port: Number(port ?? new URL(DEFAULT_ADDRESS).port),
  name: 'Simulated instruments',
  instruments: simulatedBridgeInstruments(Number(pace ?? 0)),
  journal,
});
console.log(`Simulated instruments at ${bridge.address}`);
process.on('SIGTERM', () => process.exit(0));
