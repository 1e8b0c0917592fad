import { modeName } from '@melto/core/device/modeName';
import { findCondition, listConditionNames, listSettingsPoints } from '@melto/store/conditions';
import type { ConditionRow, SettingsPoint } from '@melto/store/conditions';
import type { CatalogueEntry, Context } from '../kernel/context.ts';
import { notFound, Problem } from '../kernel/problem.ts';

export type { ConditionRow, SettingsPoint };

export async function conditionOf({ database }: Context, id: number): Promise<ConditionRow> {
  const row = Number.isSafeInteger(id) ? await findCondition(database, id) : undefined;
  if (row === undefined) throw notFound(`condition ${id}`);
  return row;
}

/** Device, stock and mode, as reports, pages and lists name a condition. */
export function conditionName(named: Pick<ConditionRow, 'device' | 'stock' | 'mode' | 'label'>): string {
  return `${named.device} / ${named.stock} / ${modeName(named)}`;
}

/** The condition of a device, stock and mode by their names. */
export async function conditionNamed(
  { database }: Context,
  wanted: Pick<ConditionRow, 'device' | 'stock' | 'mode'>,
): Promise<number | undefined> {
  const name = conditionName({ ...wanted, label: '' });
  return (await listConditionNames(database)).find((row) => conditionName(row) === name)?.id;
}

export function settingsRecord({ database }: Context, condition: number): Promise<SettingsPoint[]> {
  return listSettingsPoints(database, condition);
}

/** A device of the house's own: its pages are printed elsewhere, and measured from files. */
export function isOwnDevice({ deviceDriver }: Pick<ConditionRow, 'deviceDriver'>): boolean {
  return deviceDriver === '';
}

/** What the driver of a condition's device offers to be told; a device of the house's own has none. */
export function driverOf(
  { catalogue }: Context,
  condition: ConditionRow,
): Pick<CatalogueEntry, 'conversions'> {
  if (isOwnDevice(condition)) return { conversions: [] };
  const entry = catalogue.find(({ id }) => id === condition.deviceDriver);
  if (entry === undefined)
    throw new Problem(
      'not-ready',
      `No driver for ${condition.device} is installed.`,
      'Install it, then try again.',
    );
  return entry;
}
