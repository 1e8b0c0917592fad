import type { DeviceFacts } from '@melto/core/device/deviceFacts';
import type { Process } from '@melto/core/device/process';
import type { StockFacts } from '@melto/core/stock/stockFacts';
import type { Sql } from './database.ts';
import { lockRow } from './lockRow.ts';

export interface DeviceRow {
  readonly id: number;
  readonly name: string;
  readonly code: string;
  readonly kind: string;
  readonly process: Process;
  /** Id in the catalogue of the driver; empty for a device of the house's own, whose pages are printed elsewhere. */
  readonly driver: string;
  /** Of a device of the house's own. */
  readonly inkSet: string;
  readonly modes: readonly string[];
  readonly note: string;
  readonly facts: DeviceFacts;
  /** Its own calibration: what is done, every how many days (null where it has none), and when it was done last. */
  readonly dutyWords: string;
  readonly dutyDays: number | null;
  readonly dutyDoneMs: number | null;
  /** JSON of the points that settings records of its new conditions begin with; null for those of the house. */
  readonly settingsTemplate: string | null;
  /** When it was put away; null while it is to be chosen. */
  readonly awayMs: number | null;
}

export interface StockRow {
  readonly id: number;
  readonly name: string;
  readonly finish: 'matt' | 'semi-matt' | 'gloss';
  readonly restMinutes: number;
  readonly driver: string;
  /** What the maker's label on the box says. */
  readonly boxLabel: string;
  readonly note: string;
  readonly facts: StockFacts;
  readonly awayMs: number | null;
}

export async function listDevices(sql: Sql): Promise<DeviceRow[]> {
  const rows = await sql.rows<
    Omit<DeviceRow, 'process' | 'modes' | 'facts'> &
      Record<'process', string> &
      Record<'modes' | 'facts', string | null>
  >(
    'SELECT id, name, code, kind, process, driver, ink_set AS inkSet, modes, note, facts, duty AS dutyWords, duty_days AS dutyDays, duty_done_ms AS dutyDoneMs, settings_template AS settingsTemplate, away_ms AS awayMs FROM device WHERE house_id = ? ORDER BY name',
    [sql.house],
  );
  return rows.map((row) => ({
    ...row,
    process: JSON.parse(row.process) as Process,
    modes: row.modes === null ? [] : (JSON.parse(row.modes) as string[]),
    facts: factsOf<DeviceFacts>(row.facts),
  }));
}

export async function listStocks(sql: Sql): Promise<StockRow[]> {
  const rows = await sql.rows<Omit<StockRow, 'facts'> & { facts: string | null }>(
    'SELECT id, name, finish, rest_minutes AS restMinutes, driver, box_label AS boxLabel, note, facts, away_ms AS awayMs FROM stock WHERE house_id = ? ORDER BY name',
    [sql.house],
  );
  return rows.map((row) => ({ ...row, facts: factsOf<StockFacts>(row.facts) }));
}

/** What is known of something, as it is stored. */
export function factsOf<T>(text: string | null): T | Record<string, never> {
  return text === null ? {} : (JSON.parse(text) as T);
}

/** Stores a device, or leaves it as it is where the house has one of that name or code. */
export async function insertDevice(
  sql: Sql,
  device: Pick<DeviceRow, 'name' | 'code' | 'kind' | 'process' | 'driver'>,
  nowMs: number,
): Promise<void> {
  await sql.change(
    'INSERT IGNORE INTO device (house_id, name, code, kind, process, driver, author_id, made_ms) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
    [
      sql.house,
      device.name,
      device.code,
      device.kind,
      JSON.stringify(device.process),
      device.driver,
      sql.person,
      nowMs,
    ],
  );
}

/** Stores a device of the house's own; undefined where the house has one of that name or code. */
export async function insertOwnDevice(
  sql: Sql,
  device: Pick<DeviceRow, 'name' | 'code' | 'kind' | 'process' | 'inkSet' | 'modes' | 'facts'>,
  nowMs: number,
): Promise<number | undefined> {
  const { id, affected } = await sql.change(
    "INSERT IGNORE INTO device (house_id, name, code, kind, process, driver, ink_set, modes, facts, author_id, made_ms) VALUES (?, ?, ?, ?, ?, '', ?, ?, ?, ?, ?)",
    [
      sql.house,
      device.name,
      device.code,
      device.kind,
      JSON.stringify(device.process),
      device.inkSet,
      JSON.stringify(device.modes),
      JSON.stringify(device.facts),
      sql.person,
      nowMs,
    ],
  );
  return affected === 0 ? undefined : id;
}

/** Stores a stock of the house's own; undefined where the house has one of that name. */
export async function insertOwnStock(
  sql: Sql,
  stock: Pick<StockRow, 'name' | 'finish' | 'restMinutes' | 'facts'>,
  nowMs: number,
): Promise<number | undefined> {
  const { id, affected } = await sql.change(
    "INSERT IGNORE INTO stock (house_id, name, finish, rest_minutes, driver, facts, author_id, made_ms) VALUES (?, ?, ?, ?, '', ?, ?, ?)",
    [
      ...[sql.house, stock.name, stock.finish, stock.restMinutes, JSON.stringify(stock.facts)],
      ...[sql.person, nowMs],
    ],
  );
  return affected === 0 ? undefined : id;
}

/** What of a device may change under those that use it. */
export interface DeviceChange {
  readonly name: string;
  readonly note: string;
  /** Of a device of the house's own. */
  readonly modes: readonly string[] | null;
  readonly dutyWords: string;
  readonly dutyDays: number | null;
  readonly facts: DeviceFacts;
}

/** Changes a device; false where another has its name. */
export async function updateDevice(
  sql: Sql,
  id: number,
  { name, note, modes, dutyWords, dutyDays, facts }: DeviceChange,
): Promise<boolean> {
  await sql.change(
    'UPDATE IGNORE device SET name = ?, note = ?, modes = COALESCE(?, modes), duty = ?, duty_days = ?, facts = ? WHERE id = ? AND house_id = ?',
    [
      ...[
        name,
        note,
        modes === null ? null : JSON.stringify(modes),
        dutyWords,
        dutyDays,
        JSON.stringify(facts),
      ],
      ...[id, sql.house],
    ],
  );
  return hasName(sql, 'device', id, name);
}

/** Sets the points that settings records of a device's new conditions begin with. */
export async function setSettingsTemplate(sql: Sql, id: number, points: unknown): Promise<void> {
  await sql.change('UPDATE device SET settings_template = ? WHERE id = ? AND house_id = ?', [
    points === null ? null : JSON.stringify(points),
    id,
    sql.house,
  ]);
}

/** Keeps that a device's own calibration was done; an earlier moment changes nothing. */
export async function setDutyDone(sql: Sql, id: number, nowMs: number): Promise<void> {
  await sql.change(
    'UPDATE device SET duty_done_ms = GREATEST(COALESCE(duty_done_ms, 0), ?) WHERE id = ? AND house_id = ?',
    [nowMs, id, sql.house],
  );
}

/** What of a stock may change under those that use it. */
export type StockChange = Pick<StockRow, 'name' | 'boxLabel' | 'note' | 'restMinutes' | 'facts'>;

/** Changes a stock; false where another has its name. */
export async function updateStock(
  sql: Sql,
  id: number,
  { name, boxLabel, note, restMinutes, facts }: StockChange,
): Promise<boolean> {
  await sql.change(
    'UPDATE IGNORE stock SET name = ?, box_label = ?, note = ?, rest_minutes = ?, facts = ? WHERE id = ? AND house_id = ?',
    [name, boxLabel, note, restMinutes, JSON.stringify(facts), id, sql.house],
  );
  return hasName(sql, 'stock', id, name);
}

/** Whether a row of the library has a name now: an update that meets the name of another leaves its own. */
export async function hasName(sql: Sql, table: LibraryTable, id: number, name: string): Promise<boolean> {
  const [row] = await sql.rows<{ name: string }>(`SELECT name FROM ${table} WHERE id = ? AND house_id = ?`, [
    id,
    sql.house,
  ]);
  return row?.name === name;
}

/** Tables of the library whose rows are put away. */
export type LibraryTable = 'device' | 'stock' | 'ink_set';

/** Puts a row of the library away, or takes it out; conditions that use it keep it. */
export async function setAway(
  sql: Sql,
  table: LibraryTable,
  id: number,
  awayMs: number | null,
): Promise<void> {
  await sql.change(`UPDATE ${table} SET away_ms = ? WHERE id = ? AND house_id = ?`, [awayMs, id, sql.house]);
}

/** Conditions that use each device or stock, archived ones too. */
export async function countUses(sql: Sql, table: 'device' | 'stock'): Promise<ReadonlyMap<number, number>> {
  const rows = await sql.rows<{ id: number; uses: number }>(
    `SELECT ${table}_id AS id, COUNT(*) AS uses FROM printing_condition WHERE house_id = ? GROUP BY ${table}_id`,
    [sql.house],
  );
  return new Map(rows.map(({ id, uses }) => [id, Number(uses)]));
}

export async function insertStock(
  sql: Sql,
  stock: Pick<StockRow, 'name' | 'finish' | 'restMinutes' | 'driver'>,
  nowMs: number,
): Promise<void> {
  await sql.change(
    'INSERT IGNORE INTO stock (house_id, name, finish, rest_minutes, driver, author_id, made_ms) VALUES (?, ?, ?, ?, ?, ?, ?)',
    [sql.house, stock.name, stock.finish, stock.restMinutes, stock.driver, sql.person, nowMs],
  );
}

/** Waits for others that make conditions of a device; false where there is no such device. */
export function lockDevice(sql: Sql, device: number): Promise<boolean> {
  return lockRow(sql, 'device', device);
}

/** Counts one more print of a device and gives its number; the row stays locked until the transaction ends. */
export async function nextPrintNumber(sql: Sql, device: number): Promise<number> {
  await sql.change('UPDATE device SET prints = prints + 1 WHERE id = ? AND house_id = ?', [
    device,
    sql.house,
  ]);
  const [row] = await sql.rows<{ prints: number }>(
    'SELECT prints FROM device WHERE id = ? AND house_id = ?',
    [device, sql.house],
  );
  if (row === undefined) throw new Error(`no device ${device}`);
  return row.prints;
}
