import type { Sql } from './database.ts';

export async function readSetting(sql: Sql, name: string): Promise<string | undefined> {
  const [row] = await sql.rows<{ value: string }>(
    'SELECT value FROM setting WHERE house_id = ? AND name = ?',
    [sql.house, name],
  );
  return row?.value;
}

/** Reads a setting that is to be changed: whoever else wants to change it waits until the transaction ends. */
export async function lockSetting(sql: Sql, name: string, first: string): Promise<string> {
  await sql.change('INSERT IGNORE INTO setting (house_id, name, value) VALUES (?, ?, ?)', [
    sql.house,
    name,
    first,
  ]);
  const [row] = await sql.rows<{ value: string }>(
    'SELECT value FROM setting WHERE house_id = ? AND name = ? FOR UPDATE',
    [sql.house, name],
  );
  return row?.value ?? first;
}

export async function writeSetting(sql: Sql, name: string, value: string): Promise<void> {
  await sql.change(
    'INSERT INTO setting (house_id, name, value) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE value = VALUES(value)',
    [sql.house, name, value],
  );
}
