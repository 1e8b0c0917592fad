import type { ReaderKind } from '@melto/core/charts/pageGeometry';
import type { MeasurementMode } from '@melto/core/device/instrument';
import { isDuplicate } from './database.ts';
import type { Sql } from './database.ts';

/** What an instrument can do, as its bridge tells it. */
export interface InstrumentTraits {
  readonly serial: string;
  readonly kind: ReaderKind;
  readonly modes: readonly MeasurementMode[];
  /** Age in milliseconds after which the white tile must be read again. */
  readonly tileLifeMs: number;
  /** Diameter of the opening; null where it was not told. */
  readonly apertureMm: number | null;
  /** As told; empty where nothing was. */
  readonly filter: string;
  readonly backing: string;
  /** It reads what simulated devices print, and nothing else. */
  readonly simulated: boolean;
}

export interface InstrumentRow extends InstrumentTraits {
  readonly id: number;
  /** The house's own name for it. */
  readonly name: string;
  readonly note: string;
  /** Domain time of the last white-tile calibration. */
  readonly tileMs: number | null;
}

type Raw = Omit<InstrumentRow, 'modes' | 'simulated'> & {
  readonly modes: string | null;
  readonly simulated: number;
};

const COLUMNS = `id, name, serial, kind, modes, tile_life_ms AS tileLifeMs, aperture_mm AS apertureMm, filter, backing,
  simulated, note, tile_ms AS tileMs FROM instrument`;

const rowOf = (raw: Raw): InstrumentRow => ({
  ...raw,
  tileLifeMs: Number(raw.tileLifeMs),
  simulated: raw.simulated === 1,
  modes: raw.modes === null ? [] : (JSON.parse(raw.modes) as MeasurementMode[]),
});

export async function listInstruments(sql: Sql): Promise<InstrumentRow[]> {
  const rows = await sql.rows<Raw>(`SELECT ${COLUMNS} WHERE house_id = ? ORDER BY id`, [sql.house]);
  return rows.map(rowOf);
}

export async function findInstrument(sql: Sql, id: number): Promise<InstrumentRow | undefined> {
  const [row] = await sql.rows<Raw>(`SELECT ${COLUMNS} WHERE id = ? AND house_id = ?`, [id, sql.house]);
  return row === undefined ? undefined : rowOf(row);
}

/**
 * Keeps what an instrument of this serial number can do; a new one gets `name`, one that is known keeps its own.
 * @returns its id; undefined where another instrument has that name.
 */
export async function keepInstrument(
  sql: Sql,
  name: string,
  traits: InstrumentTraits,
): Promise<number | undefined> {
  const { serial, kind, modes, tileLifeMs, apertureMm, filter, backing, simulated } = traits;
  try {
    await sql.change(
      `INSERT INTO instrument (house_id, name, serial, kind, modes, tile_life_ms, aperture_mm, filter, backing, simulated, author_id)
       SELECT ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ? FROM DUAL
       WHERE NOT EXISTS (SELECT 1 FROM instrument WHERE house_id = ? AND serial = ?)`,
      [
        ...[sql.house, name, serial, kind, JSON.stringify(modes), tileLifeMs, apertureMm, filter, backing],
        ...[simulated, sql.person, sql.house, serial],
      ],
    );
  } catch (error) {
    if (!isDuplicate(error)) throw error;
  }
  await sql.change(
    `UPDATE instrument SET kind = ?, modes = ?, tile_life_ms = ?, aperture_mm = ?, filter = ?, backing = ?, simulated = ?
     WHERE house_id = ? AND serial = ?`,
    [
      ...[kind, JSON.stringify(modes), tileLifeMs, apertureMm, filter, backing],
      ...[simulated, sql.house, serial],
    ],
  );
  const [row] = await sql.rows<{ id: number }>(
    'SELECT id FROM instrument WHERE house_id = ? AND serial = ?',
    [sql.house, serial],
  );
  return row?.id;
}

export async function setTile(sql: Sql, instrument: number, tileMs: number): Promise<void> {
  await sql.change('UPDATE instrument SET tile_ms = ? WHERE id = ? AND house_id = ?', [
    tileMs,
    instrument,
    sql.house,
  ]);
}

/** Names an instrument and keeps a note with it; false where another has the name. */
export async function updateInstrument(
  sql: Sql,
  id: number,
  { name, note }: Pick<InstrumentRow, 'name' | 'note'>,
): Promise<boolean> {
  try {
    await sql.change('UPDATE instrument SET name = ?, note = ? WHERE id = ? AND house_id = ?', [
      ...[name, note, id, sql.house],
    ]);
    return true;
  } catch (error) {
    if (isDuplicate(error)) return false;
    throw error;
  }
}

/** Two instruments that read one print in one mode: their newest complete readings of it. */
export interface SharedPrint {
  readonly first: number;
  readonly second: number;
  readonly mode: MeasurementMode;
  readonly code: string;
  /** Readings by the first and by the second. */
  readonly readings: readonly [number, number];
}

/** Prints that two instruments have read in one mode, the newest first. */
export async function listSharedPrints(sql: Sql, limit: number): Promise<SharedPrint[]> {
  const rows = await sql.rows<Omit<SharedPrint, 'readings'> & { readonly a: number; readonly b: number }>(
    `SELECT a.instrument_id AS first, b.instrument_id AS second, a.mode, p.code, MAX(a.id) AS a, MAX(b.id) AS b
     FROM reading a JOIN reading b ON b.print_id = a.print_id AND b.mode = a.mode AND b.instrument_id > a.instrument_id
     JOIN print p ON p.id = a.print_id
     WHERE a.house_id = ? AND b.house_id = a.house_id AND a.finished_ms IS NOT NULL AND b.finished_ms IS NOT NULL
       AND a.withdrawn_ms IS NULL AND b.withdrawn_ms IS NULL
     GROUP BY a.instrument_id, b.instrument_id, a.mode, p.id, p.code ORDER BY GREATEST(MAX(a.id), MAX(b.id)) DESC LIMIT ?`,
    [sql.house, String(limit)],
  );
  return rows.map(({ a, b, ...rest }) => ({ ...rest, readings: [Number(a), Number(b)] }));
}
