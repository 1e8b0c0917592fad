import type { PatchSet } from '@melto/core/cgats/patchSet';
import { channelCount, CMYK, RGB } from '@melto/core/device/process';
import type { Process } from '@melto/core/device/process';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { RENDERING_INTENTS } from '@melto/core/icc/profileTransform';
import { issueText } from '@melto/core/result';
import { conversion } from '@melto/core/transform/conversion';
import { readCurves } from './curves.ts';
import { deviceOf, oneOf, readPatchFile, report, writePatchFile } from './files.ts';
import { readProfile } from './profileInspect.ts';
import { UsageError } from './usageError.ts';

export interface TransformOptions {
  readonly from?: string;
  readonly to?: string;
  readonly intent: string;
  readonly blackPoint?: boolean;
  readonly curves?: string;
  readonly out: string;
  readonly json?: boolean;
}

/** Converts a file of device values or of Lab through profiles, black points and curves. */
export function transform(file: string, options: TransformOptions): void {
  const intent = oneOf(options.intent, '--intent', RENDERING_INTENTS);
  const from = options.from === undefined ? undefined : readProfile(options.from);
  const to = options.to === undefined ? undefined : readProfile(options.to);
  const made = conversion({
    ...{ from, to, intent, blackPoint: options.blackPoint },
    ...(options.curves === undefined ? {} : { curves: readCurves(options.curves) }),
  });
  if (!made.ok) throw new UsageError(made.issues.map(issueText).join('; '));
  const { apply, inputs, outputs } = made.value;
  const set = readPatchFile(file);
  const values = from === undefined ? labOf(file, set) : deviceValuesOf(file, set, inputs);
  const out = new Float64Array((values.length / inputs) * outputs);
  try {
    apply(values, out);
  } catch (error) {
    if (error instanceof RangeError) throw new UsageError(`${file}: ${error.message}`);
    throw error;
  }
  writePatchFile(options.out, {
    ids: set.ids,
    ...(set.names === undefined ? {} : { names: set.names }),
    ...(to === undefined
      ? { lab: out }
      : { process: processOf(options.to ?? '', to), device: out.map(rounded) }),
    conditions: {},
    title: set.title ?? 'Converted',
    originator: 'Melto',
    notes: [],
  });
  report(options.json, { patches: set.ids.length, out: options.out }, [
    `${set.ids.length} patches: ${options.out}`,
  ]);
}

function labOf(file: string, { lab }: PatchSet): Float64Array {
  if (lab === undefined)
    throw new UsageError(`${file}: found no Lab, expected it where --from names no profile of device values`);
  return lab;
}

function deviceValuesOf(file: string, set: PatchSet, inputs: number): Float64Array {
  const { device, process } = deviceOf(file, set);
  if (channelCount(process) !== inputs)
    throw new UsageError(`${file}: found ${process.name} values, the profile is for ${inputs} channels`);
  return device;
}

function processOf(path: string, { header }: IccProfile): Process {
  const space = header.colourSpace.trim();
  const process = [RGB, CMYK].find(({ name }) => name === space);
  if (process === undefined)
    throw new UsageError(`${path}: found a profile of ${space}, expected RGB or CMYK`);
  return process;
}

/** Rounding of tables leaves values a hair beyond their ends. */
const rounded = (value: number): number => Math.min(1, Math.max(0, value));
