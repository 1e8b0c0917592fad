import type { Sql, SqlValue } from './database.ts';
import { beginningWith, holding } from './page.ts';

/** Codes that begin with a text, and the newest ones in which it is looked for wherever it stands. */
const MOST_BEGINNING = 200;
const NEWEST = 3000;

/**
 * The ids of prints or sheets whose codes a text finds: those that begin with it however old they are, by their index,
 * and of the newest of all houses also those that hold it somewhere. To look for it in all of a million would hold up whoever types.
 */
export function foundCodes(
  sql: Sql,
  table: 'print' | 'sheet',
  text: string,
): { readonly sql: string; readonly values: readonly SqlValue[] } {
  return {
    sql: `(SELECT id FROM ${table} FORCE INDEX (${table}_code) WHERE house_id = ? AND code LIKE ? ORDER BY code DESC LIMIT ${MOST_BEGINNING})
      UNION (SELECT id FROM ${table} FORCE INDEX (PRIMARY) WHERE id > (SELECT CAST(MAX(id) AS SIGNED) - ${NEWEST} FROM ${table}) AND house_id = ? AND code LIKE ?)`,
    values: [sql.house, beginningWith(text), sql.house, holding(text)],
  };
}
