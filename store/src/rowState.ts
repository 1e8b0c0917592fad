import type { Sql } from './database.ts';

/** Where what an address names stands, for those whose rows are changed where they stand. */
const TABLES: Readonly<Record<string, string>> = {
  house: 'house',
  conditions: 'printing_condition',
  devices: 'device',
  stocks: 'stock',
  'ink-sets': 'ink_set',
  sheets: 'sheet',
  readings: 'reading',
  results: 'result',
  instruments: 'instrument',
  pictures: 'picture',
  'kept-profiles': 'kept_profile',
  people: 'person',
  'machine-keys': 'machine_key',
  lights: 'viewing_light',
  'colour-lists': 'colour_list',
  'aim-sets': 'aim_set',
  'tolerance-sets': 'tolerance_set',
  'paper-trials': 'paper_trial',
  runs: 'press_run',
  feeds: 'feed',
};
/** Columns that are never told of, and those that count or lock rather than say something. */
const SILENT =
  /passphrase|code$|digest|secret|token|failures|locked|^id$|house_id|author_id|content|print_state|simulated/;
const MOST = 300;

/** Columns of each table that may be told of: files are not read to be left out. They are the same for as long as this runs. */
const columnsOf = new Map<string, readonly string[]>();

async function columns(sql: Sql, table: string): Promise<readonly string[]> {
  const known = columnsOf.get(table);
  if (known !== undefined) return known;
  const rows = await sql.rows<{ name: string }>(
    `SELECT COLUMN_NAME AS name FROM information_schema.COLUMNS
     WHERE TABLE_SCHEMA = DATABASE() AND TABLE_NAME = ? AND DATA_TYPE NOT LIKE '%blob' AND DATA_TYPE NOT LIKE '%binary'`,
    [table],
  );
  const told = rows.map(({ name }) => name).filter((name) => !SILENT.test(name));
  columnsOf.set(table, told);
  return told;
}

export type RowState = Readonly<Record<string, string | number | null>>;

/** What an address names, as it stands now: its plain columns. Undefined where nothing of it stands in a row of its own. */
export async function rowState(
  sql: Sql,
  kind: string,
  name: string | undefined,
): Promise<RowState | undefined> {
  const table = TABLES[kind];
  if (table === undefined || (name === undefined && table !== 'house')) return undefined;
  const [where, values] =
    table === 'house'
      ? ['id = ?', [sql.house]]
      : [`${table === 'sheet' ? 'code' : 'id'} = ? AND house_id = ?`, [name ?? '', sql.house]];
  const [row] = await sql.rows<RowState>(
    `SELECT ${(await columns(sql, table)).join(', ')} FROM ${table} WHERE ${where}`,
    values,
  );
  if (row === undefined) return undefined;
  return Object.fromEntries(
    Object.entries(row).map(([column, value]) => [
      column,
      typeof value === 'string' && value.length > MOST ? `${value.slice(0, MOST)}…` : value,
    ]),
  );
}
