import { conditionNamed } from '@melto/services/ledger/conditions';
import { conditionChoices, createCondition } from '@melto/services/house/newCondition';
import type { SettingsPoint } from '@melto/services/ledger/conditions';
import type { Context } from '@melto/services/kernel/context';

/** The condition of a story: the one that is there, else a new one. */
export async function conditionFor(
  context: Context,
  story: { readonly device: string; readonly stock: string; readonly mode: string },
  points: readonly SettingsPoint[],
): Promise<number> {
  const existing = await conditionNamed(context, story);
  if (existing !== undefined) return existing;
  const device = (await conditionChoices(context)).devices.find(({ name }) => name === story.device);
  const stock = device?.stocks.find(({ name }) => name === story.stock);
  if (device === undefined || stock === undefined)
    throw new Error(`the sample house has no ${story.device} with ${story.stock}`);
  const { id } = await createCondition(context, {
    deviceId: device.id,
    stockId: stock.id,
    inkSet: device.inkSet,
    mode: story.mode,
    points,
  });
  return id;
}
