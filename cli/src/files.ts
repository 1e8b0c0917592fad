import { CMYK, RGB, sameProcess } from '@melto/core/device/process';
import type { Process } from '@melto/core/device/process';
import { readFileSync, writeFileSync } from 'node:fs';
import { patchXyz } from '@melto/core/cgats/patchColours';
import { readPatchSet } from '@melto/core/cgats/patchSetFromCgats';
import { patchSetToCgats } from '@melto/core/cgats/patchSetToCgats';
import type { PatchSet } from '@melto/core/cgats/patchSet';
import { writeCgats } from '@melto/core/cgats/writeCgats';
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

/** The device values of a set of RGB patches, or a usage error that says what is missing. */
export function rgbDevice(path: string, set: PatchSet): Float64Array {
  if (!sameProcess(set.process, RGB) || set.device === undefined)
    throw new UsageError(
      `${path}: found ${set.process?.name ?? 'no'} device values, expected RGB_R, RGB_G, RGB_B`,
    );
  return set.device;
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
export function cmykReading(path: string): { set: PatchSet; device: Float64Array; xyz: Float64Array } {
  const set = readPatchFile(path);
  if (!sameProcess(set.process, CMYK) || set.device === undefined)
    throw new UsageError(
      `${path}: found ${set.process?.name ?? 'no'} device values, expected CMYK_C, CMYK_M, CMYK_Y, CMYK_K`,
    );
  const xyz = patchXyz(set);
  if (xyz === undefined) throw new UsageError(`${path}: found no colours, expected spectra, XYZ or Lab`);
  return { set, device: set.device, xyz };
}
