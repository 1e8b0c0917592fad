import type { Sql } from './database.ts';

export interface DeviceRow {
  readonly id: number;
  readonly name: string;
  readonly code: string;
  readonly kind: string;
  readonly space: string;
  /** Id in the catalogue of the driver. */
  readonly driver: string;
}

export interface StockRow {
  readonly id: number;
  readonly name: string;
  readonly finish: 'matt' | 'semi-matt' | 'gloss';
  readonly restMinutes: number;
  readonly driver: string;
}

export interface InstrumentRow {
  readonly id: number;
  readonly name: string;
  readonly driver: string;
  /** Domain time of the last white-tile calibration. */
  readonly tileMs: number | null;
}

export function listDevices(sql: Sql): Promise<DeviceRow[]> {
  return sql.rows('SELECT id, name, code, kind, space, driver FROM device ORDER BY name');
}

export function listStocks(sql: Sql): Promise<StockRow[]> {
  return sql.rows('SELECT id, name, finish, rest_minutes AS restMinutes, driver FROM stock ORDER BY name');
}

export function listInstruments(sql: Sql): Promise<InstrumentRow[]> {
  return sql.rows('SELECT id, name, driver, tile_ms AS tileMs FROM instrument ORDER BY id');
}

export async function insertDevice(sql: Sql, device: Omit<DeviceRow, 'id'>, nowMs: number): Promise<void> {
  await sql.change(
    'INSERT IGNORE INTO device (name, code, kind, space, driver, made_ms) VALUES (?, ?, ?, ?, ?, ?)',
    [device.name, device.code, device.kind, device.space, device.driver, nowMs],
  );
}

export async function insertStock(sql: Sql, stock: Omit<StockRow, 'id'>, nowMs: number): Promise<void> {
  await sql.change(
    'INSERT IGNORE INTO stock (name, finish, rest_minutes, driver, made_ms) VALUES (?, ?, ?, ?, ?)',
    [stock.name, stock.finish, stock.restMinutes, stock.driver, nowMs],
  );
}

export async function insertInstrument(sql: Sql, name: string, driver: string): Promise<void> {
  await sql.change('INSERT IGNORE INTO instrument (name, driver) VALUES (?, ?)', [name, driver]);
}

export async function setTile(sql: Sql, instrument: number, tileMs: number): Promise<void> {
  await sql.change('UPDATE instrument SET tile_ms = ? WHERE id = ?', [tileMs, instrument]);
}

/** Counts one more print of a device and gives its number; the row stays locked until the transaction ends. */
export async function nextPrintNumber(sql: Sql, device: number): Promise<number> {
  await sql.change('UPDATE device SET prints = prints + 1 WHERE id = ?', [device]);
  const [row] = await sql.rows<{ prints: number }>('SELECT prints FROM device WHERE id = ?', [device]);
  if (row === undefined) throw new Error(`no device ${device}`);
  return row.prints;
}
