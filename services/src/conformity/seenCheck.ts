import { seenUnder } from '@melto/core/conformity/seenUnder';
import type { SeenPair } from '@melto/core/conformity/seenUnder';
import { issueText } from '@melto/core/result';
import type { Observer } from '@melto/core/spectral/xyzWeights';
import { sourceReadingOf } from '@melto/store/results';
import { loadAims } from './aimSets.ts';
import { askedSet } from './checkChoice.ts';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { viewingLight } from '../light/viewingLights.ts';
import { loadReading } from '../reading/loadReading.ts';
import { AIM_CHECK } from '../ledger/kinds/aimCheckKind.ts';
import { storedResult } from '../ledger/storedResult.ts';

/** The patches of a check under another light; the verdict is not touched by it. */
export async function seenCheck(
  context: Context,
  resultId: number,
  key: string,
  observer: Observer,
): Promise<readonly SeenPair[]> {
  const light = await viewingLight(context, key);
  const { detail } = await storedResult(context, resultId, AIM_CHECK);
  const readingId = await sourceReadingOf(context.database, resultId);
  if (readingId === undefined)
    throw new Problem('bad-input', 'The reading of this check is gone.', 'Choose another check.');
  const [{ aims }, loaded] = await Promise.all([
    loadAims(context, detail.header.aims.id),
    loadReading(context, readingId),
  ]);
  const seen = seenUnder(askedSet(loaded), aims, light, observer);
  if (!seen.ok)
    throw new Problem(
      'bad-input',
      `It cannot be seen under ${light.name}: ${seen.issues.map(issueText).join('; ')}.`,
      'Take aims made of a reading with spectra.',
      'light',
    );
  return seen.value;
}
