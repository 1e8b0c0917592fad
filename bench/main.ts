// Benchmarks that print tables: `npm run bench -- accuracy faults speed` (all where none is named).
const names = process.argv.slice(2);
const all = ['accuracy', 'faults', 'speed'] as const;
for (const name of all) {
  if (names.length > 0 && !names.includes(name)) continue;
  if (name === 'accuracy') await (await import('./accuracy.ts')).accuracy();
  if (name === 'faults') (await import('./faults.ts')).faults();
  if (name === 'speed') await (await import('./speed.ts')).speed();
}
export {};
