import type { ChangeKind, SimulatedChange } from '@melto/core/device/printPath';
import { readSetting, writeSetting } from '@melto/store/settings';
import { domainNow } from '../kernel/clock.ts';
import { conditionOf } from '../ledger/conditions.ts';
import type { Services } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';

const nameOf = (condition: number): string => `simulated-changes-${condition}`;
const MOST_CHANGES = 5;

/** What was made to happen at the simulated device of a condition; nothing at real ones. */
export async function simulatedChanges(services: Services, condition: number): Promise<SimulatedChange[]> {
  const stored = await readSetting(services.database, nameOf(condition));
  return stored === undefined ? [] : (JSON.parse(stored) as SimulatedChange[]);
}

/** From when on the simulated instrument reads a condition's sheets otherwise. */
export async function instrumentBias(services: Services, condition: number): Promise<number | undefined> {
  return (await simulatedChanges(services, condition)).find(({ kind }) => kind === 'instrument')?.fromMs;
}

/** Lets something happen at the simulated device from now on. */
export async function letChange(
  services: Services,
  conditionId: number,
  kind: ChangeKind,
  ink: number,
): Promise<readonly SimulatedChange[]> {
  await conditionOf(services, conditionId);
  const before = await simulatedChanges(services, conditionId);
  if (before.length >= MOST_CHANGES)
    throw new Problem('conflict', 'Enough has happened to this device.', 'Put it right first.');
  const changes = [...before, { kind, ink, fromMs: await domainNow(services) }];
  await writeSetting(services.database, nameOf(conditionId), JSON.stringify(changes));
  return changes;
}

/** Puts the simulated device right again. */
export async function putRight(services: Services, conditionId: number): Promise<void> {
  await writeSetting(services.database, nameOf(conditionId), '[]');
}
