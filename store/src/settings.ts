import type { Sql } from './database.ts';

export async function readSetting(sql: Sql, name: string): Promise<string | undefined> {
  const [row] = await sql.rows<{ value: string }>('SELECT value FROM setting WHERE name = ?', [name]);
  return row?.value;
}

export async function writeSetting(sql: Sql, name: string, value: string): Promise<void> {
  await sql.change(
    'INSERT INTO setting (name, value) VALUES (?, ?) ON DUPLICATE KEY UPDATE value = VALUES(value)',
    [name, value],
  );
}
