import type { IccProfile } from '@melto/core/icc/iccTypes';
import { readIcc } from '@melto/core/icc/readIcc';
import { issueText } from '@melto/core/result';
import { Problem } from './problem.ts';

/** The profile of a file that somebody gave; nothing is stored of one that cannot be read. */
export function profileOfFile(fileName: string, bytes: Uint8Array): IccProfile {
  const read = readIcc(bytes);
  if (!read.ok)
    throw new Problem(
      'bad-input',
      `${fileName} is no ICC profile that can be read: ${read.issues.map(issueText).join('; ')}.`,
      'Nothing was stored. Give the file as it came from its maker.',
    );
  return read.value;
}
