import { drivenByInks } from '@melto/core/device/process';
import { listConditionNames, findConditions } from '@melto/store/conditions';
import { listDevices } from '@melto/store/devices';
import type { Context } from '../kernel/context.ts';
import { conditionName } from '../ledger/conditions.ts';

/** A condition that runs can be made on. */
export interface PressChoice {
  readonly conditionId: number;
  readonly name: string;
  /** Ink zones of the device, where they are known. */
  readonly zones: number | null;
}

/** Conditions of devices that take inks, those with ink zones first. */
export async function pressChoices({ database }: Context): Promise<PressChoice[]> {
  const [names, devices] = await Promise.all([listConditionNames(database), listDevices(database)]);
  const rows = await findConditions(
    database,
    names.map(({ id }) => id),
  );
  const choices = rows
    .filter(({ process }) => drivenByInks(process))
    .map((row) => ({
      conditionId: row.id,
      name: conditionName(row),
      zones: devices.find(({ id }) => id === row.deviceId)?.facts.zones ?? null,
    }));
  return choices.sort(
    (a, b) => Number(b.zones !== null) - Number(a.zones !== null) || a.name.localeCompare(b.name),
  );
}
