import { aimSets, registerPublishedAims } from '../conformity/aimSets.ts';
import { conditionChoices, createCondition } from '../house/newCondition.ts';
import type { Context } from '../kernel/context.ts';
import { named } from './named.ts';

/** A condition of the offset press, and the aims that a run on it is judged by. */
export async function ospreyOn(
  services: Context,
  stock: string,
  label = '',
): Promise<{ readonly conditionId: number; readonly aimSetId: number }> {
  await registerPublishedAims(services);
  const {
    id: deviceId,
    stocks,
    inkSet,
    modes,
    points,
  } = named((await conditionChoices(services)).devices, 'Osprey');
  const condition = { deviceId, stockId: named(stocks, stock).id, inkSet, mode: modes[0], points, label };
  const { id: conditionId } = await createCondition(services, condition);
  return { conditionId, aimSetId: (await aimSets(services))[0].id };
}
