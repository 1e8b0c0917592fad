import { seenUnder } from '@melto/core/conformity/seenUnder';
import type { SeenPair } from '@melto/core/conformity/seenUnder';
import { issueText } from '@melto/core/result';
import { tableIlluminant } from '@melto/core/spectral/illuminant';
import type { IlluminantName } from '@melto/core/spectral/illuminant';
import { sourceReadingOf } from '@melto/store/results';
import { loadAims } from './aimSets.ts';
import { askedSet } from './checkChoice.ts';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { loadReading } from '../reading/loadReading.ts';
import { AIM_CHECK } from '../ledger/kinds/aimCheckKind.ts';
import { storedResult } from '../ledger/storedResult.ts';

export const SEEN_ILLUMINANTS: readonly IlluminantName[] = ['D50', 'D65', 'A', 'F2', 'F8', 'F11'];

/** The patches of a check under another light; the verdict is not touched by it. */
export async function seenCheck(
  context: Context,
  resultId: number,
  illuminant: string,
  observer: string,
): Promise<readonly SeenPair[]> {
  const name = SEEN_ILLUMINANTS.find((each) => each === illuminant);
  if (name === undefined || (observer !== '2' && observer !== '10'))
    throw new Problem(
      'bad-input',
      'There is no such light or observer.',
      `Choose ${SEEN_ILLUMINANTS.join(', ')} and an observer of 2 or 10 degrees.`,
      'illuminant',
    );
  const { detail } = await storedResult(context, resultId, AIM_CHECK);
  const readingId = await sourceReadingOf(context.database, resultId);
  if (readingId === undefined)
    throw new Problem('bad-input', 'The reading of this check is gone.', 'Choose another check.');
  const [{ aims }, loaded] = await Promise.all([
    loadAims(context, detail.header.aims.id),
    loadReading(context, readingId),
  ]);
  const seen = seenUnder(askedSet(loaded), aims, tableIlluminant(name), observer === '2' ? '2deg' : '10deg');
  if (!seen.ok)
    throw new Problem(
      'bad-input',
      `It cannot be seen under ${name}: ${seen.issues.map(issueText).join('; ')}.`,
      'Take aims made of a reading with spectra.',
      'illuminant',
    );
  return seen.value;
}
