import { toneAims } from '@melto/core/conformity/toneAims';
import { CMYK, sameProcess } from '@melto/core/device/process';
import { issueText } from '@melto/core/result';
import { loadAims } from './aimSets.ts';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { conditionOf } from '../ledger/conditions.ts';
import type { TviChoice } from '../ledger/kinds/curvesKind.ts';

/** A choice as a person makes it: an aim set is named by its id. */
export type AskedTvi = Exclude<TviChoice, { readonly inks: unknown }> | { readonly aimSetId: number };

/** What an aim set asks of each ink, as it stands now; letters and points as they are. */
export async function tviOf(
  context: Context,
  conditionId: number,
  asked: AskedTvi | undefined,
): Promise<TviChoice | undefined> {
  if (asked === undefined || !('aimSetId' in asked)) return asked;
  const { process } = await conditionOf(context, conditionId);
  const { view, aims } = await loadAims(context, asked.aimSetId);
  const found = toneAims(aims);
  if (!sameProcess(process, CMYK) || !found.ok)
    throw new Problem(
      'bad-input',
      found.ok
        ? `${view.name} is for CMYK, this condition is not.`
        : `${view.name} gives no tone aims: ${found.issues.map(issueText).join('; ')}.`,
      'Choose another aim.',
      'tvi',
    );
  return { aims: { id: view.id, name: view.name, version: view.version }, inks: found.value };
}
