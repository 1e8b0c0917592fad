import { listConditions } from '@melto/store/conditions';
import { listHeads, removeHead, setHead } from '@melto/store/results';
import { conditionOf } from '../ledger/conditions.ts';
import type { Services } from '../kernel/context.ts';
import { LENDABLE } from '../ledger/links.ts';
import type { LinkName } from '../ledger/links.ts';
import { Problem } from '../kernel/problem.ts';

/** A condition that could lend its calibration. */
export interface Lender {
  readonly conditionId: number;
  readonly name: string;
  readonly links: readonly { readonly link: LinkName; readonly version: number }[];
}

/** Conditions of the same device, inks and mode that have a calibration of their own. */
export async function lendersFor(services: Services, conditionId: number): Promise<Lender[]> {
  const condition = await conditionOf(services, conditionId);
  const [conditions, heads] = await Promise.all([
    listConditions(services.database),
    listHeads(services.database),
  ]);
  return conditions
    .filter(
      (other) =>
        other.id !== conditionId &&
        other.deviceId === condition.deviceId &&
        other.inkSet === condition.inkSet &&
        other.mode === condition.mode,
    )
    .map((other) => ({
      conditionId: other.id,
      name: `${other.device} / ${other.stock} / ${other.mode}`,
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
  services: Services,
  conditionId: number,
  lenderId: number,
): Promise<{ readonly links: readonly LinkName[] }> {
  const lender = (await lendersFor(services, conditionId)).find((other) => other.conditionId === lenderId);
  if (lender === undefined)
    throw new Problem(
      'bad-input',
      'This condition cannot lend its calibration.',
      'Choose one of the same device, inks and mode that has curves.',
      'conditionId',
    );
  const heads = await listHeads(services.database, lenderId);
  await services.database.transaction(async (sql) => {
    for (const link of LENDABLE) {
      const head = heads.find((row) => row.link === link && row.conditionId === lenderId);
      if (head !== undefined) await setHead(sql, conditionId, link, head.id);
      // What the lender does not have would not fit what is borrowed.
      else await removeHead(sql, conditionId, link);
    }
  });
  return { links: lender.links.map(({ link }) => link) };
}
