import type { NamedColour } from '@melto/core/refine/namedColour';
import { issueText } from '@melto/core/result';
import { readColourList } from '@melto/paper/readColourList';
import { Problem } from '../kernel/problem.ts';

/** The colours of a list that was dropped; nothing is stored. */
export function colourList(text: string): { readonly colours: readonly NamedColour[] } {
  const read = readColourList(text);
  if (!read.ok)
    throw new Problem(
      'bad-input',
      `The list cannot be used: ${read.issues.map(issueText).join('; ')}.`,
      'Take CxF, CGATS, or CSV with the columns name, L, a, b.',
    );
  return { colours: read.value };
}
