import type { Answers, Measurement } from '@melto/core/measured/measurement';
import type { ListedColour } from '@melto/core/refine/namedColour';
import type { Emission } from '@melto/core/light/emissions';
import type { Result } from '@melto/core/result';
import { readEmissions } from './measured/readEmissions.ts';
import { readMeasurement } from './measured/readMeasurement.ts';
import { readColourList } from './readColourList.ts';

/** A file that somebody gave, to be read. */
export type UploadTask =
  | { readonly kind: 'measurement'; readonly file: Uint8Array | string; readonly answers: Answers }
  | { readonly kind: 'colours'; readonly file: string }
  | { readonly kind: 'lights'; readonly file: Uint8Array };

/** What is read of each kind. */
export interface UploadRead {
  readonly measurement: Measurement;
  readonly colours: readonly ListedColour[];
  readonly lights: readonly Emission[];
}

/** Reads a file that somebody gave; also the entry of a thread, so that a hostile one does not hold up the server. */
export function readUpload(task: UploadTask): Result<UploadRead[keyof UploadRead]> {
  if (task.kind === 'lights') return readEmissions(task.file);
  return task.kind === 'measurement' ? readMeasurement(task.file, task.answers) : readColourList(task.file);
}
