// Benchmarks that print tables: `npm run bench -- accuracy faults calibrate speed` (all where none is named).
const names = process.argv.slice(2);
const all = [
  'accuracy',
  'faults',
  'ramps',
  'calibrate',
  'command',
  'cmyk',
  'loop',
  'refine',
  'smoothness',
  'fill',
  'watch',
  'checks',
  'others',
  'alike',
  'map',
  'proof',
  'predicted',
  'chain',
  'brightener',
  'reach',
  'eye',
  'press',
  'inks',
  'speed',
] as const;
for (const name of all) {
  if (names.length > 0 ? !names.includes(name) : name === 'ramps') continue;
  if (name === 'accuracy') await (await import('./accuracy.ts')).accuracy();
  if (name === 'brightener') (await import('./brightener.ts')).brightener();
  if (name === 'eye') (await import('./eye.ts')).eye();
  if (name === 'inks') (await import('./manyInks.ts')).manyInks();
  if (name === 'press') (await import('./press.ts')).press();
  if (name === 'reach') (await import('./reach.ts')).reach();
  if (name === 'faults') {
    const { faults, rampFaults } = await import('./faults.ts');
    faults();
    rampFaults();
  }
  if (name === 'ramps') (await import('./faults.ts')).rampFaults();
  if (name === 'calibrate') (await import('./calibrate.ts')).calibrate();
  if (name === 'command') (await import('./calibrateByCommand.ts')).calibrateByCommand();
  if (name === 'cmyk') {
    const { cmykForward, publishedHalves } = await import('./cmykForward.ts');
    cmykForward();
    publishedHalves();
  }
  if (name === 'loop') (await import('./cmykLoop.ts')).cmykLoop();
  if (name === 'refine') (await import('./refine.ts')).refine();
  if (name === 'smoothness') await (await import('./smoothness.ts')).smoothness();
  if (name === 'fill') (await import('./gamutFill.ts')).gamutFill();
  if (name === 'checks') await (await import('./checks.ts')).checks();
  if (name === 'watch') (await import('./watch.ts')).watch();
  if (name === 'chain') (await import('./chain.ts')).chain();
  if (name === 'others') (await import('./otherLoop.ts')).otherLoop();
  if (name === 'alike') (await import('./alike.ts')).alike();
  if (name === 'predicted') (await import('./predicted.ts')).predicted();
  if (name === 'proof') await (await import('./proof.ts')).proof();
  if (name === 'map') (await import('./errorMap.ts')).errorMap();
  if (name === 'speed') await (await import('./speed.ts')).speed();
}
export {};
