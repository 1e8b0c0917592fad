import { OWN_PAGE_MM, paperNamed } from '@melto/core/charts/pageGeometry';
import type { PaperName } from '@melto/core/charts/pageGeometry';
import { profiledProcess } from '@melto/core/characterise/leastPatches';
import { drivenByInks, takesCmyk } from '@melto/core/device/process';
import type { Process } from '@melto/core/device/process';
import { readFileSync, writeFileSync } from 'node:fs';
import { patchXyz } from '@melto/core/cgats/patchColours';
import { readPatchSet } from '@melto/core/cgats/patchSetFromCgats';
import { patchSetToCgats } from '@melto/core/cgats/patchSetToCgats';
import type { PatchSet } from '@melto/core/cgats/patchSet';
import { writeCgats } from '@melto/core/cgats/writeCgats';
import { DEVICE_SCALES } from '@melto/core/device/deviceScale';
import type { Mode } from '@melto/core/measured/columns';
import type { Answers, Measurement } from '@melto/core/measured/measurement';
import { readMeasurement } from '@melto/paper/measured/readMeasurement';
import type { NamedColour } from '@melto/core/refine/namedColour';
import { readColourList } from '@melto/paper/readColourList';
import { issueText } from '@melto/core/result';
import { UsageError } from './usageError.ts';

export function readBytes(path: string): Uint8Array {
  try {
    return readFileSync(path);
  } catch (error) {
    throw new UsageError(
      `${path}: cannot be read (${error instanceof Error ? error.message : String(error)})`,
    );
  }
}

export function writeFile(path: string, content: string | Uint8Array): void {
  try {
    writeFileSync(path, content);
  } catch (error) {
    throw new UsageError(
      `${path}: cannot be written (${error instanceof Error ? error.message : String(error)})`,
    );
  }
}

export function readPatchFile(path: string): PatchSet {
  const result = readPatchSet(Buffer.from(readBytes(path)).toString('utf8'));
  if (!result.ok) throw new UsageError(`${path}: ${result.issues.map(issueText).join('; ')}`);
  return result.value;
}

/** What a person says of a file that does not tell it: `M1`, `255`, `table 2`, in any order, parted by commas. */
export function measuredAs(text: string | undefined): Answers & { readonly place?: number } {
  let answers: Answers & { readonly place?: number } = {};
  for (const word of (text ?? '').split(',').map((part) => part.trim().toUpperCase())) {
    const scale = DEVICE_SCALES.find((own) => String(own) === word);
    const table = /^TABLE (\d{1,2})$/.exec(word)?.[1];
    if (/^M[0-3]$/.test(word)) answers = { ...answers, mode: word as Mode };
    else if (scale !== undefined) answers = { ...answers, scale };
    else if (word === 'BANDPASS') answers = { ...answers, bandpass: 'take out' };
    else if (table !== undefined) answers = { ...answers, place: Number(table) };
    else if (word !== '')
      throw new UsageError(
        `--measured-as: found "${word}", expected M0 to M3, 1, 100, 255, 65535, bandpass or table 1 …`,
      );
  }
  return answers;
}

/**
 * A reading from a file in any form. What is left open and matters is refused; notes on the rest go to stderr. Colours
 * without spectra that do not tell their light are taken for D50 and the 2° observer (ISO 13655), and said so.
 */
export function readMeasuredFile(path: string, as: ReturnType<typeof measuredAs> = {}): PatchSet {
  const bytes = readBytes(path);
  const refuse = (words: string): never => {
    throw new UsageError(`${path}: ${words}`);
  };
  const read = (answers: Answers): Measurement => {
    const found = readMeasurement(bytes, answers);
    return found.ok ? found.value : refuse(found.issues.map(issueText).join('; '));
  };
  const light = { light: 'D50 2°' } as const;
  let found = read({ ...as, ...light });
  const tables = found.questions.find(({ asks }) => asks === 'table');
  if (tables?.asks === 'table') {
    const table = tables.options[(as.place ?? 0) - 1];
    if (table === undefined)
      refuse(`found ${tables.options.join('; ')}, expected one; say --measured-as "table 1"`);
    found = read({ ...as, ...light, table });
  }
  const scale = found.questions.find(({ asks }) => asks === 'scale');
  if (scale?.asks === 'scale')
    refuse(
      `its ${scale.process} values may count to ${scale.options.join(' or ')}; say --measured-as ${scale.options[0] ?? ''}`,
    );
  const [only] = found.modes;
  const chosen = found.modes.length === 1 ? only : found.modes.find(({ mode }) => mode === as.mode);
  if (chosen === undefined)
    return refuse(
      `found the modes ${found.modes.map(({ mode }) => mode ?? 'untold').join(', ')}; say --measured-as ${only?.mode ?? 'M1'}`,
    );
  const { told, damaged, unused } = found;
  const notes = [
    ...found.notes,
    ...(chosen.set.spectra === undefined && (told.illuminant === undefined || told.observer === undefined)
      ? ['The file does not tell what light its colours are for; they are taken for D50 and the 2° observer.']
      : []),
    ...damaged.map(({ line, why }) => `line ${line} was left out: ${why}`),
    ...(unused.length > 0 ? [`Not used: ${unused.join(', ')}.`] : []),
  ];
  for (const note of notes) process.stderr.write(`(${path}: ${note})\n`);
  return chosen.set;
}

export function colourListFrom(path: string): NamedColour[] {
  const result = readColourList(Buffer.from(readBytes(path)).toString('utf8'));
  if (!result.ok) throw new UsageError(`${path}: ${result.issues.map(issueText).join('; ')}`);
  return result.value;
}

export function writePatchFile(path: string, set: PatchSet): void {
  writeFile(path, writeCgats(patchSetToCgats(set)));
}

/** The device values of a set of patches, whatever their channels. */
export function deviceOf(path: string, set: PatchSet): { device: Float64Array; process: Process } {
  if (set.process === undefined || set.device === undefined)
    throw new UsageError(`${path}: found no device values, expected RGB_R … or CMYK_C …`);
  return { device: set.device, process: set.process };
}

export function wholeNumber(text: string, name: string, least: number, most: number): number {
  const value = Number(text);
  if (!Number.isInteger(value) || value < least || value > most)
    throw new UsageError(`${name}: found "${text}", expected a whole number from ${least} to ${most}`);
  return value;
}

export function oneOf<T extends string>(text: string, name: string, choices: readonly T[]): T {
  const found = choices.find((choice) => choice === text.toLowerCase());
  if (found === undefined) throw new UsageError(`${name}: found "${text}", expected ${choices.join(', ')}`);
  return found;
}

/** Prints a JSON object or lines for people. */
export function report(
  json: boolean | undefined,
  value: Readonly<Record<string, unknown>>,
  lines: readonly string[],
): void {
  process.stdout.write(json === true ? `${JSON.stringify(value)}\n` : `${lines.join('\n')}\n`);
}

/** A CMYK reading, or a usage error that says what is missing. */
export function cmykReading(path: string, as?: string): CharacterisedReading {
  return readingOf(path, takesCmyk, 'CMYK_C, CMYK_M, CMYK_Y, CMYK_K', as);
}

/** A reading of inks, whichever they are. */
export function inkReading(path: string, as?: string): CharacterisedReading {
  const set = readMeasuredFile(path, measuredAs(as));
  const { device, process } = deviceOf(path, set);
  if (!drivenByInks(process))
    throw new UsageError(`${path}: found ${process.name} values, expected inks as CMYK_C …`);
  const xyz = patchXyz(set);
  if (xyz === undefined) throw new UsageError(`${path}: found no colours, expected spectra, XYZ or Lab`);
  return { set, process, device, xyz };
}

/** A reading of a device whose profiles Melto makes: RGB, CMYK, or these four and up to four other inks. */
export function profiledReading(path: string, as?: string): CharacterisedReading {
  return readingOf(
    path,
    profiledProcess,
    'RGB_R …, CMYK_C …, or more inks with C, M, Y and K among them',
    as,
  );
}

interface CharacterisedReading {
  readonly set: PatchSet;
  readonly process: Process;
  readonly device: Float64Array;
  readonly xyz: Float64Array;
}

function readingOf(
  path: string,
  suits: (process: Process) => boolean,
  expected: string,
  as?: string,
): CharacterisedReading {
  const set = readMeasuredFile(path, measuredAs(as));
  const { process } = set;
  if (process === undefined || set.device === undefined || !suits(process))
    throw new UsageError(`${path}: found ${process?.name ?? 'no'} device values, expected ${expected}`);
  const xyz = patchXyz(set);
  if (xyz === undefined) throw new UsageError(`${path}: found no colours, expected spectra, XYZ or Lab`);
  return { set, process, device: set.device, xyz };
}

/** A page by its name, or its width and height in mm. */
export function paperOf(name: string): PaperName {
  const paper = paperNamed(name);
  if (paper === undefined)
    throw new UsageError(
      `--paper: found "${name}", expected a4, letter, a3, or width and height in mm such as 610x914, ${OWN_PAGE_MM.least} to ${OWN_PAGE_MM.most} each`,
    );
  return paper;
}
