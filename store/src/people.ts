import type { Sql } from './database.ts';

export interface PersonRow {
  readonly id: number;
  readonly name: string;
  readonly role: string;
  /** Whether there is a passphrase to come in by. */
  readonly comesIn: boolean;
  readonly awayMs: number | null;
  /** When one of their sessions was last used; null for nobody who is signed in. */
  readonly seenMs: number | null;
}

/** What a sign-in is judged by. */
export interface Credentials {
  readonly id: number;
  readonly role: string;
  /** Hash as argon2 writes it; null where there is none. */
  readonly passphrase: string | null;
  readonly failures: number;
  readonly lockedMs: number;
  readonly awayMs: number | null;
}

const CREDENTIALS =
  'SELECT id, role, passphrase, failures, locked_ms AS lockedMs, away_ms AS awayMs FROM person WHERE house_id = ?';

/** Everybody of the house, those who left last. */
export async function listPeople(sql: Sql): Promise<PersonRow[]> {
  const rows = await sql.rows<Omit<PersonRow, 'comesIn'> & { comesIn: number }>(
    `SELECT p.id, p.name, p.role, p.passphrase IS NOT NULL AS comesIn, p.away_ms AS awayMs, MAX(s.seen_ms) AS seenMs
     FROM person p LEFT JOIN person_session s ON s.person_id = p.id WHERE p.house_id = ?
     GROUP BY p.id, p.name, p.role, p.passphrase, p.away_ms ORDER BY p.away_ms IS NOT NULL, p.name`,
    [sql.house],
  );
  return rows.map((row) => ({ ...row, comesIn: row.comesIn === 1 }));
}

/** Whether anybody keeps the house and can come in. */
export async function anyKeeper(sql: Sql): Promise<boolean> {
  const [row] = await sql.rows(
    "SELECT 1 FROM person WHERE house_id = ? AND role = 'keeper' AND passphrase IS NOT NULL AND away_ms IS NULL LIMIT 1",
    [sql.house],
  );
  return row !== undefined;
}

export async function credentialsByName(sql: Sql, name: string): Promise<Credentials | undefined> {
  const [row] = await sql.rows<Credentials>(`${CREDENTIALS} AND name = ?`, [sql.house, name]);
  return row;
}

export async function credentialsOf(sql: Sql, id: number): Promise<Credentials | undefined> {
  const [row] = await sql.rows<Credentials>(`${CREDENTIALS} AND id = ?`, [sql.house, id]);
  return row;
}

/** Stores a person; undefined where the house has one of that name. */
export async function insertPerson(
  sql: Sql,
  { name, role }: Pick<PersonRow, 'name' | 'role'>,
  nowMs: number,
): Promise<number | undefined> {
  const { id, affected } = await sql.change(
    'INSERT IGNORE INTO person (house_id, name, role, made_ms) VALUES (?, ?, ?, ?)',
    [sql.house, name, role, nowMs],
  );
  return affected === 0 ? undefined : id;
}

/** Names a person and says what they may do; false where another has that name. */
export async function updatePerson(
  sql: Sql,
  id: number,
  { name, role }: Pick<PersonRow, 'name' | 'role'>,
): Promise<boolean> {
  await sql.change('UPDATE IGNORE person SET name = ?, role = ? WHERE id = ? AND house_id = ?', [
    ...[name, role, id, sql.house],
  ]);
  const [row] = await sql.rows('SELECT 1 FROM person WHERE id = ? AND house_id = ? AND name = ?', [
    ...[id, sql.house, name],
  ]);
  return row !== undefined;
}

export async function setPersonAway(sql: Sql, id: number, awayMs: number | null): Promise<void> {
  await sql.change('UPDATE person SET away_ms = ? WHERE id = ? AND house_id = ?', [awayMs, id, sql.house]);
}

/** Gives a person a passphrase; what was counted against the one before is forgotten. */
export async function setPassphrase(sql: Sql, id: number, hash: string): Promise<void> {
  await sql.change(
    'UPDATE person SET passphrase = ?, failures = 0, locked_ms = 0 WHERE id = ? AND house_id = ?',
    [hash, id, sql.house],
  );
}

/** What failures are counted for, and where: guessing the one locks nobody out of the other. */
const COUNTED = {
  passphrase: ['failures', 'locked_ms'],
  code: ['code_failures', 'code_locked_ms'],
} as const;

/**
 * Counts a failure before its secret is looked at, so that many at once are all counted. From `most` on it locks; what
 * was counted before a lock that is over counts no more.
 */
export async function countFailure(
  sql: Sql,
  id: number,
  of: keyof typeof COUNTED,
  { most, nowMs, untilMs }: { readonly most: number; readonly nowMs: number; readonly untilMs: number },
): Promise<void> {
  const [failures, locked] = COUNTED[of];
  await sql.change(
    `UPDATE person SET ${failures} = IF(${locked} > 0 AND ${locked} <= ?, 1, ${failures} + 1),
       ${locked} = IF(${failures} >= ?, ?, IF(${locked} <= ?, 0, ${locked})) WHERE id = ? AND house_id = ?`,
    [nowMs, most, untilMs, nowMs, id, sql.house],
  );
}

export async function forgetFailures(sql: Sql, id: number, of: keyof typeof COUNTED): Promise<void> {
  const [failures, locked] = COUNTED[of];
  await sql.change(`UPDATE person SET ${failures} = 0, ${locked} = 0 WHERE id = ? AND house_id = ?`, [
    id,
    sql.house,
  ]);
}
