import { listLikeConditions, lockCondition } from '@melto/store/conditions';
import { listHeads, listHeadsOf, removeHead, setHead } from '@melto/store/results';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { conditionName, conditionOf } from '../ledger/conditions.ts';
import { LENDABLE } from '../ledger/links.ts';
import type { LinkName } from '../ledger/links.ts';

/** A condition that could lend its calibration. */
export interface Lender {
  readonly conditionId: number;
  readonly name: string;
  readonly links: readonly { readonly link: LinkName; readonly version: number }[];
}

/** Conditions of the same device, inks and mode that have a calibration of their own. */
export async function lendersFor(context: Context, conditionId: number): Promise<Lender[]> {
  const condition = await conditionOf(context, conditionId);
  const others = (await listLikeConditions(context.database, condition)).filter(
    ({ id }) => id !== conditionId,
  );
  const heads = await listHeadsOf(
    context.database,
    others.map(({ id }) => id),
  );
  return others
    .map((other) => ({
      conditionId: other.id,
      name: conditionName(other),
      links: heads
        .filter(
          (head) =>
            head.headConditionId === other.id &&
            head.conditionId === other.id &&
            LENDABLE.includes(head.link),
        )
        .map(({ link, version }) => ({ link, version })),
    }))
    .filter(({ links }) => links.some(({ link }) => link === 'curves'));
}

/** Takes over the calibration of another condition as it is in force there; again to follow its newer versions. */
export async function borrowCalibration(
  context: Context,
  conditionId: number,
  lenderId: number,
): Promise<{ readonly links: readonly LinkName[] }> {
  const lender = (await lendersFor(context, conditionId)).find((other) => other.conditionId === lenderId);
  if (lender === undefined)
    throw new Problem(
      'bad-input',
      'This condition cannot lend its calibration.',
      'Choose one of the same device, inks and mode that has curves.',
      'conditionId',
    );
  return unitOfWork(context, async ({ database }) => {
    // In the order of ids, so that two that borrow from each other do not wait for each other.
    for (const id of [conditionId, lenderId].sort((a, b) => a - b)) await lockCondition(database, id);
    const heads = (await listHeads(database, lenderId)).filter((row) => row.conditionId === lenderId);
    const taken: LinkName[] = [];
    for (const link of LENDABLE) {
      const head = heads.find((row) => row.link === link);
      if (head !== undefined) {
        await setHead(database, conditionId, link, head.id);
        taken.push(link);
      }
      // What the lender does not have would not fit what is borrowed.
      else await removeHead(database, conditionId, link);
    }
    return { links: taken };
  });
}
