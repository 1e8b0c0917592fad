import type { DensityStatus } from '@melto/core/density/density';
import type { Units } from '@melto/core/units/units';
import type { Sql } from './database.ts';
import { lockRow } from './lockRow.ts';

export interface HouseRow {
  readonly id: number;
  readonly name: string;
  /** IANA name of the time zone in which the house's times are told. */
  readonly timeZone: string;
  readonly units: Units;
  readonly densityStatus: DensityStatus;
  /** When its shifts begin: clock times in the order of the day, with commas. */
  readonly shifts: string;
  /** Whether it holds the sample house, whose clock may be moved. */
  readonly sample: boolean;
}

export async function findHouse(sql: Sql): Promise<HouseRow | undefined> {
  const [row] = await sql.rows<Omit<HouseRow, 'sample'> & { sample: number }>(
    'SELECT id, name, time_zone AS timeZone, units, density_status AS densityStatus, shifts, sample FROM house WHERE id = ?',
    [sql.house],
  );
  return row === undefined ? undefined : { ...row, sample: row.sample === 1 };
}

/** Name, time zone and ways of telling of the house, and the name of whoever acts; false where another has that name. */
export async function setHouse(
  sql: Sql,
  {
    name,
    timeZone,
    units,
    densityStatus,
    shifts,
    person,
  }: Pick<HouseRow, 'name' | 'timeZone' | 'units' | 'densityStatus' | 'shifts'> & {
    readonly person: string;
  },
): Promise<boolean> {
  await sql.change(
    'UPDATE house SET name = ?, time_zone = ?, units = ?, density_status = ?, shifts = ? WHERE id = ?',
    [name, timeZone, units, densityStatus, shifts, sql.house],
  );
  await sql.change('UPDATE IGNORE person SET name = ? WHERE id = ? AND house_id = ?', [
    person,
    sql.person,
    sql.house,
  ]);
  return (await actingName(sql)) === person;
}

export async function setSample(sql: Sql, sample: boolean): Promise<void> {
  await sql.change('UPDATE house SET sample = ? WHERE id = ?', [sample, sql.house]);
}

/** Stores a house with its first person; gives both ids. */
export async function insertHouse(
  sql: Sql,
  house: {
    readonly name: string;
    readonly timeZone: string;
    readonly person: string;
    readonly madeMs: number;
  },
): Promise<{ readonly house: number; readonly person: number }> {
  const { id } = await sql.change('INSERT INTO house (name, time_zone, made_ms) VALUES (?, ?, ?)', [
    house.name,
    house.timeZone,
    house.madeMs,
  ]);
  const person = await sql.change(
    "INSERT INTO person (house_id, name, role, made_ms) VALUES (?, ?, 'specialist', ?)",
    [id, house.person, house.madeMs],
  );
  return { house: id, person: person.id };
}

/** The name of whoever acts. */
export async function actingName(sql: Sql): Promise<string | undefined> {
  const [row] = await sql.rows<{ name: string }>('SELECT name FROM person WHERE id = ? AND house_id = ?', [
    sql.person,
    sql.house,
  ]);
  return row?.name;
}

/** Waits for others that change what the house has one of. */
export async function lockHouse(sql: Sql): Promise<void> {
  await lockRow(sql, 'house', sql.house);
}
