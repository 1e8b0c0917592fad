import type { ChangeKind, SimulatedChange } from '@melto/core/device/printPath';
import { lockSetting, readSetting, writeSetting } from '@melto/store/settings';
import { domainNow } from '../kernel/clock.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { conditionOf, isOwnDevice } from '../ledger/conditions.ts';

const nameOf = (condition: number): string => `simulated-changes-${condition}`;
const MOST_CHANGES = 5;

const parsed = (stored: string | undefined): SimulatedChange[] =>
  stored === undefined ? [] : (JSON.parse(stored) as SimulatedChange[]);

/** What was made to happen at the simulated device of a condition. */
export async function simulatedChanges(
  { database }: Context,
  condition: number,
): Promise<readonly SimulatedChange[]> {
  return parsed(await readSetting(database, nameOf(condition)));
}

/** Lets something happen at the simulated device from now on. */
export async function letChange(
  context: Context,
  conditionId: number,
  kind: ChangeKind,
  ink: number,
): Promise<readonly SimulatedChange[]> {
  const condition = await conditionOf(context, conditionId);
  const { process, device } = condition;
  if (isOwnDevice(condition))
    throw new Problem(
      'bad-input',
      `${device} is not simulated: what happens to it happens at the device.`,
      'Measure it again.',
    );
  if (ink >= process.channels.length)
    throw new Problem('bad-input', `${device} has no ink ${ink + 1}.`, 'Choose one that it has.', 'ink');
  return unitOfWork(context, async (inner) => {
    const before = parsed(await lockSetting(inner.database, nameOf(conditionId), '[]'));
    if (before.length >= MOST_CHANGES)
      throw new Problem('conflict', 'Enough has happened to this device.', 'Put it right first.');
    const changes = [...before, { kind, ink, fromMs: await domainNow(inner) }];
    await writeSetting(inner.database, nameOf(conditionId), JSON.stringify(changes));
    return changes;
  });
}

/** Puts the simulated device right again. */
export async function putRight({ database }: Context, conditionId: number): Promise<void> {
  await writeSetting(database, nameOf(conditionId), '[]');
}
