/** Mutants that no test can notice, since nothing a caller can see changes; each with its reason. */
export const EQUIVALENT: readonly {
  readonly file: string;
  readonly original: string;
  readonly changed: string;
  readonly why: string;
}[] = [
  {
    file: 'core/src/cgats/textScanner.ts',
    original: "!line.includes('#')",
    changed: 'false',
    why: 'an early way out: the loop after it finds no mark either',
  },
  {
    file: 'core/src/icc/interpolateClut.ts',
    original: 'weight !== 0',
    changed: 'true',
    why: 'a corner without weight adds nothing',
  },
  {
    file: 'core/src/cgats/patchSetFromCgats.ts',
    original: 'xyz.length > 0',
    changed: '(xyz.length) >= (0)',
    why: 'a table has a row, else it is refused before',
  },
  {
    file: 'core/src/watch/watchFigures.ts',
    original: 'device.length / 4',
    changed: '(device.length) * (4)',
    why: 'rows past the end have no device values and are no patch of the wedge',
  },
];
