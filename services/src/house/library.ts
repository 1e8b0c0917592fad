import { lockHouse } from '@melto/store/houses';
import { isDutyDue, MOST_DUTY_DAYS } from '@melto/core/device/calibrationDuty';
import type { CalibrationDuty } from '@melto/core/device/calibrationDuty';
import type { DeviceFacts } from '@melto/core/device/deviceFacts';
import { channelNames, drivenByInks } from '@melto/core/device/process';
import type { StockFacts } from '@melto/core/stock/stockFacts';
import {
  countUses,
  listDevices,
  listStocks,
  setAway,
  setDutyDone,
  updateDevice,
  updateStock,
} from '@melto/store/devices';
import type { DeviceRow, StockRow } from '@melto/store/devices';
import { listInkSets } from '@melto/store/inkSets';
import { domainNow } from '../kernel/clock.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { CatalogueEntry, Context } from '../kernel/context.ts';
import { notFound, Problem } from '../kernel/problem.ts';
import { dutyOf } from '../ledger/deviceDuty.ts';
import { checkPages, checkRest, modesOf, nameTaken, ownKindOf } from './ownDevices.ts';
import { named } from '../kernel/named.ts';
import type { OwnDeviceKind } from './ownDevices.ts';

/** A device of the library. */
export interface LibraryDevice {
  readonly id: number;
  readonly name: string;
  readonly code: string;
  readonly kind: string;
  readonly channels: string;
  /** It prints inks that it is told one by one, and has curves of a front end. */
  readonly inks: boolean;
  readonly inkSet: string;
  readonly modes: readonly string[];
  readonly note: string;
  readonly facts: DeviceFacts;
  readonly away: boolean;
  /** Real: its pages are printed elsewhere. Otherwise a simulated one. */
  readonly own: boolean;
  /** How a real one is driven. */
  readonly ownKind: OwnDeviceKind | null;
  /** Names of its channels in their order. */
  readonly inkNames: readonly string[];
  /** Its own calibration, and whether it is due; null where it has none. */
  readonly duty: (CalibrationDuty & { readonly due: boolean }) | null;
  /** Conditions that use it. */
  readonly uses: number;
}

/** A stock of the library. */
export interface LibraryStock {
  readonly id: number;
  readonly name: string;
  readonly finish: StockRow['finish'];
  readonly restMinutes: number;
  readonly boxLabel: string;
  readonly note: string;
  readonly facts: StockFacts;
  readonly away: boolean;
  readonly uses: number;
}

export async function libraryDevices(context: Context): Promise<LibraryDevice[]> {
  const { database, catalogue } = context;
  const [rows, uses, nowMs] = await Promise.all([
    listDevices(database),
    countUses(database, 'device'),
    domainNow(context),
  ]);
  return rows.flatMap((row) => {
    const entry = catalogue.find(({ id }) => id === row.driver);
    // A simulated device is none where the simulator is left out.
    if (row.driver !== '' && entry === undefined) return [];
    return [deviceView(row, entry, uses.get(row.id) ?? 0, nowMs)];
  });
}

function deviceView(
  row: DeviceRow,
  entry: CatalogueEntry | undefined,
  uses: number,
  nowMs: number,
): LibraryDevice {
  const { id, name, code, kind, process, note, facts, awayMs, driver } = row;
  const duty = dutyOf(row);
  return {
    ...{ id, name, code, kind, note, facts, uses },
    channels: process.name,
    inkNames: channelNames(process),
    inks: drivenByInks(process),
    inkSet: entry?.inkSet ?? row.inkSet,
    modes: entry?.modes ?? row.modes,
    away: awayMs !== null,
    own: driver === '',
    ownKind: driver === '' ? ownKindOf(kind) : null,
    duty: duty === undefined ? null : { ...duty, due: isDutyDue(duty, nowMs) },
  };
}

export async function libraryStocks({ database, catalogue }: Context): Promise<LibraryStock[]> {
  const [rows, uses] = await Promise.all([listStocks(database), countUses(database, 'stock')]);
  const simulated = new Set(catalogue.flatMap(({ stocks }) => stocks.map(({ id }) => id)));
  return rows
    .filter(({ driver }) => driver === '' || simulated.has(driver))
    .map(({ id, name, finish, restMinutes, boxLabel, note, facts, awayMs }) => ({
      ...{ id, name, finish, restMinutes, boxLabel, note, facts },
      away: awayMs !== null,
      uses: uses.get(id) ?? 0,
    }));
}

export interface ChangedDevice {
  readonly name: string;
  readonly note: string;
  /** Print modes of a device of the house's own. */
  readonly modes?: readonly string[];
  /** Its own calibration; null to have none, left out to leave it as it is. */
  readonly duty?: Pick<CalibrationDuty, 'words' | 'days'> | null;
  /** What is known of it; left out to leave it as it is. */
  readonly facts?: DeviceFacts;
}

/**
 * Renames a device, notes something of it, adds print modes. What its conditions rest on (inks, channels, modes that
 * were there) stays: another of these is another device.
 */
export async function changeDevice(context: Context, id: number, change: ChangedDevice): Promise<void> {
  const name = named(change.name, 'name', 'device');
  checkPages(change.facts);
  await unitOfWork(context, async ({ database }) => {
    await lockHouse(database);
    const row = (await listDevices(database)).find((device) => device.id === id);
    if (row === undefined) throw notFound(`device ${id}`);
    if (change.modes !== undefined && row.driver !== '')
      throw new Problem('bad-input', `${row.name} has the modes of its driver.`, 'Leave them.', 'modes');
    const modes = change.modes === undefined ? null : modesOf(change.modes);
    const lost = modes === null ? [] : row.modes.filter((mode) => !modes.includes(mode));
    if (lost.length > 0 && (await countUses(database, 'device')).has(id))
      throw new Problem(
        'conflict',
        `Conditions may print in ${lost.join(', ')}.`,
        'Add modes to those that are there.',
        'modes',
      );
    const duty = change.duty === undefined ? row : dutyRow(change.duty);
    const { dutyWords, dutyDays } = duty;
    const facts = change.facts ?? row.facts;
    const next = { name, note: change.note.trim(), modes, dutyWords, dutyDays, facts };
    if (!(await updateDevice(database, id, next))) throw nameTaken(name, 'device');
  });
}

function dutyRow(duty: (ChangedDevice['duty'] & object) | null): Pick<DeviceRow, 'dutyWords' | 'dutyDays'> {
  if (duty === null) return { dutyWords: '', dutyDays: null };
  const { words, days } = duty;
  const dutyWords = words.trim();
  if (dutyWords === '' || !Number.isInteger(days) || days < 1 || days > MOST_DUTY_DAYS)
    throw new Problem(
      'bad-input',
      'The calibration of a device has a name and an interval.',
      `Say what is done, and every how many days, 1 to ${MOST_DUTY_DAYS}.`,
      dutyWords === '' ? 'words' : 'days',
    );
  return { dutyWords, dutyDays: days };
}

/** Keeps that the calibration of a device was done now. */
export async function dutyDone(context: Context, id: number): Promise<{ readonly doneMs: number }> {
  const row = (await listDevices(context.database)).find((device) => device.id === id);
  if (row === undefined) throw notFound(`device ${id}`);
  if (row.dutyDays === null)
    throw new Problem(
      'conflict',
      `${row.name} has no calibration of its own that is kept here.`,
      'Name it in the library first.',
    );
  const doneMs = await domainNow(context);
  await unitOfWork(context, ({ database }) => setDutyDone(database, id, doneMs));
  return { doneMs };
}

export type ChangedStock = Pick<LibraryStock, 'name' | 'boxLabel' | 'note' | 'restMinutes'> & {
  /** What is known of it; left out to leave it as it is. */
  readonly facts?: StockFacts;
};

/** Renames a stock, and changes what is noted of it; sheets that rest keep the time they were given. */
export async function changeStock(context: Context, id: number, change: ChangedStock): Promise<void> {
  const name = named(change.name, 'name', 'stock');
  checkRest(change.restMinutes);
  await unitOfWork(context, async ({ database }) => {
    await lockHouse(database);
    const before = (await listStocks(database)).find((stock) => stock.id === id);
    if (before === undefined) throw notFound(`stock ${id}`);
    const { facts = before.facts, restMinutes } = change;
    const row = { name, boxLabel: change.boxLabel.trim(), note: change.note.trim(), restMinutes, facts };
    if (!(await updateStock(database, id, row))) throw nameTaken(name, 'stock');
  });
}

const TABLES = {
  device: { table: 'device', list: listDevices },
  stock: { table: 'stock', list: listStocks },
  'ink set': { table: 'ink_set', list: listInkSets },
} as const;

/** Puts a device, a stock or an ink set away, so that no new condition is made of it, or takes it out. */
export async function putAway(
  context: Context,
  what: keyof typeof TABLES,
  id: number,
  away: boolean,
): Promise<void> {
  const { table, list } = TABLES[what];
  const rows: readonly { readonly id: number }[] = await list(context.database);
  if (!rows.some((row) => row.id === id)) throw notFound(`${what} ${id}`);
  await unitOfWork(context, ({ database }) => setAway(database, table, id, away ? context.now() : null));
}
