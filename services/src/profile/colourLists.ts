import type { NamedColour } from '@melto/core/refine/namedColour';
import { issueText } from '@melto/core/result';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';

/** The colours of a list that was dropped; nothing is stored. */
export async function colourList(
  { readUpload }: Context,
  text: string,
): Promise<{ readonly colours: readonly NamedColour[] }> {
  const read = await readUpload({ kind: 'colours', file: text });
  if (!read.ok)
    throw new Problem(
      'bad-input',
      `The list cannot be used: ${read.issues.map(issueText).join('; ')}.`,
      'Take CxF, CGATS, or CSV with the columns name, L, a, b.',
    );
  return { colours: read.value };
}
