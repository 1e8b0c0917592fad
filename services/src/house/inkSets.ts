import type { InkCosts } from '@melto/core/stock/inkCosts';
import { lockHouse } from '@melto/store/houses';
import { countInkSetUses, insertInkSet, listInkSets, updateInkSet } from '@melto/store/inkSets';
import type { InkSetRow } from '@melto/store/inkSets';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { notFound } from '../kernel/problem.ts';
import { checkRest, nameTaken } from './ownDevices.ts';
import { named } from '../kernel/named.ts';

/** An ink set of the library. */
export interface LibraryInkSet {
  readonly id: number;
  readonly name: string;
  readonly kind: InkSetRow['kind'];
  readonly restMinutes: number | null;
  /** Price and laydown of each ink, in the order of the channels; empty where nobody has told. */
  readonly costs: InkCosts;
  readonly note: string;
  readonly away: boolean;
  /** Conditions that print with it. */
  readonly uses: number;
}

export type InkSetChange = Pick<LibraryInkSet, 'name' | 'kind' | 'restMinutes' | 'costs' | 'note'>;

export async function libraryInkSets({ database }: Context): Promise<LibraryInkSet[]> {
  const [rows, uses] = await Promise.all([listInkSets(database), countInkSetUses(database)]);
  return rows.map(({ id, name, kind, restMinutes, costs, note, awayMs }) => ({
    ...{ id, name, kind, restMinutes, costs, note },
    away: awayMs !== null,
    uses: uses.get(name.toLowerCase()) ?? 0,
  }));
}

/** Makes an ink set that devices and conditions can be made with. */
export async function createInkSet(context: Context, change: InkSetChange): Promise<{ readonly id: number }> {
  const row = checked(change);
  return unitOfWork(context, async ({ database }) => {
    const id = await insertInkSet(database, row, context.now());
    if (id === undefined) throw nameTaken(row.name, 'ink set');
    return { id };
  });
}

/**
 * Renames an ink set wherever it is used, and changes what is noted of it: a new name makes no new inks. Sheets that
 * rest keep the time they were given.
 */
export async function changeInkSet(context: Context, id: number, change: InkSetChange): Promise<void> {
  const row = checked(change);
  await unitOfWork(context, async ({ database }) => {
    await lockHouse(database);
    const before = (await listInkSets(database)).find((inkSet) => inkSet.id === id);
    if (before === undefined) throw notFound(`ink set ${id}`);
    if (!(await updateInkSet(database, before, row))) throw nameTaken(row.name, 'ink set');
  });
}

function checked({ name, kind, restMinutes, costs, note }: InkSetChange): InkSetChange {
  if (restMinutes !== null) checkRest(restMinutes);
  return { name: named(name, 'name', 'ink set'), kind, restMinutes, costs, note: note.trim() };
}
