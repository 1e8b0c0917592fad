import { issueText } from '@melto/core/result';
import { decodeText } from '@melto/paper/measured/decodeText';
import { Problem } from './problem.ts';

/** The text of a file that somebody gave, however its letters are written: none becomes another in silence. */
export function fileText(bytes: Uint8Array): string {
  const text = decodeText(bytes);
  if (text.ok) return text.value.replace(/^\uFEFF/, '');
  throw new Problem(
    'bad-input',
    `The file is no text: ${text.issues.map(issueText).join('; ')}.`,
    'Nothing was stored. Export it as text, and give that.',
    'file',
  );
}
