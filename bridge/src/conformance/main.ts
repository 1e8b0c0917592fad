import { parseArgs } from 'node:util';
import { DEFAULT_ADDRESS } from '../protocol.ts';
import { underForChecks } from '../simulated/underForChecks.ts';
import { conformance } from './conformance.ts';

// `npm run bridge-check -- ws://127.0.0.1:3471 --patches 20`: exit code 1 where a rule is broken. With --simulated the
// instrument is given a strip of a simulated sheet.
const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: { patches: { type: 'string', default: '20' }, simulated: { type: 'boolean', default: false } },
});
const patches = Number(values.patches);
if (!Number.isInteger(patches) || patches < 1 || patches > 2000) {
  console.error('--patches: a whole number, 1 to 2000');
  process.exit(2);
}
const findings = await conformance({
  address: positionals[0] ?? DEFAULT_ADDRESS,
  patches,
  under: values.simulated ? underForChecks(patches) : undefined,
  tell: (words) => console.log(`   ${words}`),
});
for (const { name, wrong } of findings)
  console.log(wrong === undefined ? `ok   ${name}` : `NOT  ${name}: ${wrong}`);
const broken = findings.filter(({ wrong }) => wrong !== undefined).length;
console.log(
  broken === 0 ? `All ${findings.length} rules hold.` : `${broken} of ${findings.length} rules are broken.`,
);
process.exit(broken === 0 ? 0 : 1);
