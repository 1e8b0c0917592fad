import { readdirSync } from 'node:fs';
import type { Sql } from './database.ts';

/** Tables of the schema that is open. */
export async function tableNames(sql: Sql): Promise<string[]> {
  const rows = await sql.rows<{ name: string }>(
    "SELECT table_name AS name FROM information_schema.tables WHERE table_schema = DATABASE() AND table_type = 'BASE TABLE' ORDER BY table_name",
  );
  return rows.map(({ name }) => name);
}

/** Migrations that have run in the schema, in their order; none where there are no tables. */
export async function migrationsRun(sql: Sql): Promise<string[]> {
  if (!(await tableNames(sql)).includes('migration')) return [];
  const rows = await sql.rows<{ name: string }>('SELECT name FROM migration ORDER BY name');
  return rows.map(({ name }) => name);
}

/** Migrations that this version of Melto knows. */
export const migrationsKnown = (folder: string): string[] =>
  readdirSync(folder)
    .filter((file) => file.endsWith('.sql'))
    .sort();

/** Whether anybody has done anything in the schema: a condition, a sheet, a kept profile, a person who comes in. */
export async function isUsed(sql: Sql): Promise<boolean> {
  const tables = new Set(await tableNames(sql));
  for (const table of ['printing_condition', 'reading', 'result', 'kept_profile', 'person_session']) {
    if (!tables.has(table)) continue;
    if ((await sql.rows(`SELECT 1 FROM ${table} LIMIT 1`)).length > 0) return true;
  }
  return false;
}

/** Whether a runner works on it: it was heard of since a moment. */
export async function isRun(sql: Sql, sinceMs: number): Promise<boolean> {
  if (!(await tableNames(sql)).includes('runner')) return false;
  return (await sql.rows('SELECT 1 FROM runner WHERE beat_ms > ? LIMIT 1', [sinceMs])).length > 0;
}

/** Takes all tables away. */
export async function dropTables(sql: Sql): Promise<void> {
  await sql.change('SET FOREIGN_KEY_CHECKS = 0');
  for (const name of await tableNames(sql)) await sql.change(`DROP TABLE \`${name.replaceAll('`', '``')}\``);
  await sql.change('SET FOREIGN_KEY_CHECKS = 1');
}

/** Rows and a checksum of each table, by which two databases are compared. */
export async function tableChecksums(
  sql: Sql,
): Promise<ReadonlyMap<string, { readonly rows: number; readonly checksum: string }>> {
  const out = new Map<string, { rows: number; checksum: string }>();
  for (const name of await tableNames(sql)) {
    const [counted] = await sql.rows<{ n: number }>(`SELECT COUNT(*) AS n FROM \`${name}\``);
    const [sum] = await sql.rows<{ Checksum: number | string | null }>(`CHECKSUM TABLE \`${name}\``);
    out.set(name, { rows: Number(counted.n), checksum: String(sum.Checksum) });
  }
  return out;
}
