import { conditionsOf } from '@melto/services/ledger/conditionList';
import { conditionChoices, createCondition } from '@melto/services/ledger/conditions';
import type { SettingsPoint } from '@melto/services/ledger/conditions';
import type { Services } from '@melto/services/kernel/context';

/** The condition of a story: the one that is there, else a new one. */
export async function conditionFor(
  services: Services,
  story: { readonly device: string; readonly stock: string; readonly mode: string },
  points: readonly SettingsPoint[],
): Promise<number> {
  const existing = (await conditionsOf(services)).find(
    (c) => c.device === story.device && c.stock === story.stock && c.mode === story.mode,
  );
  if (existing !== undefined) return existing.id;
  const device = (await conditionChoices(services)).devices.find(({ name }) => name === story.device);
  const stock = device?.stocks.find(({ name }) => name === story.stock);
  if (device === undefined || stock === undefined)
    throw new Error(`the sample house has no ${story.device} with ${story.stock}`);
  const { id } = await createCondition(services, {
    deviceId: device.id,
    stockId: stock.id,
    inkSet: device.inkSet,
    mode: story.mode,
    points,
  });
  return id;
}
