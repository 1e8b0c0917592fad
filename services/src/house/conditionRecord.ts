import {
  deletedKey,
  fillSettingsPoint,
  isUsed,
  listArchivedConditions,
  listSameConditions,
  lockCondition,
  setConditionArchived,
  setConditionDeleted,
  setConditionLabel,
  setConditionRest,
} from '@melto/store/conditions';
import { listDevices, lockDevice, setSettingsTemplate } from '@melto/store/devices';
import type { PictureRow } from '@melto/store/pictures';
import { picturesOf } from './pictures.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { notFound, Problem } from '../kernel/problem.ts';
import { conditionName, conditionOf, settingsRecord } from '../ledger/conditions.ts';
import type { ConditionRow, SettingsPoint } from '../ledger/conditions.ts';
import { plainName, templateOf } from './newCondition.ts';
import { checkRest } from './ownDevices.ts';

/** A condition with its settings record, as its page shows them. */
export interface ConditionRecord {
  readonly condition: ConditionRow;
  readonly points: readonly SettingsPoint[];
  /** Nothing was printed or made for it. */
  readonly deletable: boolean;
  /** Of the driver's dialogs. */
  readonly pictures: readonly PictureRow[];
}

export async function conditionRecord(context: Context, id: number): Promise<ConditionRecord> {
  const condition = await conditionOf(context, id);
  const [points, used, pictures] = await Promise.all([
    settingsRecord(context, id),
    isUsed(context.database, id),
    picturesOf(context, id),
  ]);
  return { condition, points, deletable: !used, pictures };
}

/** Names a condition, to tell it from others of the same device, stock, inks and mode. */
export async function renameCondition(context: Context, id: number, label: string): Promise<void> {
  const name = label.trim().replace(/\s+/g, ' ');
  const condition = await conditionOf(context, id);
  await unitOfWork(context, async ({ database }) => {
    // Whoever makes or names a condition of this device follows: two must not take one name.
    await lockDevice(database, condition.deviceId);
    const others = (await listSameConditions(database, condition)).filter((other) => other.id !== id);
    if (others.some((other) => plainName(other.label) === plainName(name)))
      throw new Problem(
        'conflict',
        name === '' ? 'Another condition of these has no name.' : `Another condition of these is “${name}”.`,
        'Give a name that tells the two apart.',
        'label',
      );
    await setConditionLabel(database, id, name);
  });
}

/** Takes a condition off floor, lists and search with all that it holds, or puts it back. */
export async function archiveCondition(context: Context, id: number, archived: boolean): Promise<void> {
  await conditionOf(context, id);
  await unitOfWork(context, ({ database }) =>
    setConditionArchived(database, id, archived ? context.now() : null),
  );
}

/**
 * Keeps the points of a condition, or those that are given, as what new conditions of its device begin with; or none, for
 * those of the house. Tells what was kept before.
 */
export async function keepTemplate(
  context: Context,
  id: number,
  keep: boolean,
  given?: readonly SettingsPoint[],
): Promise<{ readonly before: readonly SettingsPoint[] | null }> {
  const { deviceId } = await conditionOf(context, id);
  const points = keep ? (given ?? (await settingsRecord(context, id))) : null;
  return unitOfWork(context, async ({ database }) => {
    await lockDevice(database, deviceId);
    const device = (await listDevices(database)).find((row) => row.id === deviceId);
    await setSettingsTemplate(database, deviceId, points);
    return { before: (device && templateOf(device)) ?? null };
  });
}

/** Deletes a condition for which nothing was printed or made, or takes that back. */
export async function deleteCondition(context: Context, id: number, deleted: boolean): Promise<void> {
  await unitOfWork(context, async (inner) => {
    const { database } = inner;
    if (deleted) {
      const condition = await conditionOf(inner, id);
      if (!(await lockCondition(database, id))) throw notFound(`condition ${id}`);
      if (await isUsed(database, id))
        throw new Problem(
          'conflict',
          `${conditionName(condition)} holds prints or results, which are kept.`,
          'Archive it: it is on no list then.',
        );
      await setConditionDeleted(database, id, context.now());
      return;
    }
    const [key] = await deletedKey(database, id);
    if (key === undefined) throw notFound(`condition ${id}`);
    await lockDevice(database, key.deviceId);
    const others = await listSameConditions(database, key);
    if (others.some((other) => plainName(other.label) === plainName(key.label)))
      throw new Problem('conflict', 'The same condition was made anew meanwhile.', 'Go on with that one.');
    await setConditionDeleted(database, id, null);
  });
}

/** Sets how long prints of a condition rest, as the house has found; null for the time of its stock. */
export async function setRest(context: Context, id: number, restMinutes: number | null): Promise<void> {
  if (restMinutes !== null) checkRest(restMinutes);
  await conditionOf(context, id);
  await unitOfWork(context, ({ database }) => setConditionRest(database, id, restMinutes));
}

/** Fills a point of the settings record that was left empty. What is told is never rewritten. */
export async function fillPoint(context: Context, id: number, label: string, value: string): Promise<void> {
  const told = value.trim();
  if (told === '')
    throw new Problem('bad-input', `${label} has no value.`, 'Write it as the driver shows it.', 'value');
  await conditionOf(context, id);
  const point = (await settingsRecord(context, id)).find((own) => own.label === label);
  if (point === undefined) throw notFound(`point “${label}” of this record`);
  await unitOfWork(context, async ({ database }) => {
    if (!(await fillSettingsPoint(database, id, label, told)))
      throw new Problem(
        'conflict',
        `${label} is told already.`,
        'Another value is another condition: copy this one and change it there.',
        'value',
      );
  });
}

export interface ArchivedCondition {
  readonly id: number;
  readonly name: string;
  readonly archivedMs: number;
}

const MOST_ARCHIVED = 500;

/** The latest of the archived conditions. */
export async function archivedConditions({ database }: Context): Promise<ArchivedCondition[]> {
  return (await listArchivedConditions(database, MOST_ARCHIVED)).map((row) => ({
    id: row.id,
    name: conditionName(row),
    archivedMs: row.archivedMs ?? 0,
  }));
}
