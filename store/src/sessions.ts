import type { Sql } from './database.ts';

/** Who is signed in by a cookie. */
export interface SessionRow {
  readonly house: number;
  readonly person: number;
  readonly name: string;
  readonly role: string;
  readonly seenMs: number;
  readonly endsMs: number;
  /** Name of the desk that it is; null for a person's own. */
  readonly desk: string | null;
  /** Who works at the desk, and since when; nobody who has left. */
  readonly takenBy: number | null;
  readonly takenName: string | null;
  readonly takenRole: string | null;
  readonly takenMs: number | null;
}

export async function insertSession(
  sql: Sql,
  session: {
    readonly digest: Uint8Array;
    readonly person: number;
    readonly agent: string;
    readonly nowMs: number;
    readonly endsMs: number;
  },
): Promise<void> {
  await sql.change(
    'INSERT INTO person_session (digest, house_id, person_id, agent, made_ms, seen_ms, ends_ms) VALUES (?, ?, ?, ?, ?, ?, ?)',
    [
      ...[Buffer.from(session.digest), sql.house, session.person, session.agent, session.nowMs],
      ...[session.nowMs, session.endsMs],
    ],
  );
}

/** Whoever is signed in by it, of any house; nobody who has left, and none whose time is over. */
export async function findSession(
  sql: Sql,
  digest: Uint8Array,
  nowMs: number,
): Promise<SessionRow | undefined> {
  const [row] = await sql.rows<SessionRow>(
    `SELECT s.house_id AS house, s.person_id AS person, p.name, p.role, s.seen_ms AS seenMs, s.ends_ms AS endsMs,
       s.desk, t.id AS takenBy, t.name AS takenName, t.role AS takenRole, s.taken_ms AS takenMs
     FROM person_session s JOIN person p ON p.id = s.person_id AND p.house_id = s.house_id
     LEFT JOIN person t ON t.id = s.taken_by AND t.house_id = s.house_id AND t.away_ms IS NULL
     WHERE s.digest = ? AND s.ends_ms > ? AND p.away_ms IS NULL`,
    [Buffer.from(digest), nowMs],
  );
  return row;
}

export async function touchSession(
  sql: Sql,
  digest: Uint8Array,
  nowMs: number,
  endsMs: number,
): Promise<void> {
  await sql.change('UPDATE person_session SET seen_ms = ?, ends_ms = ? WHERE digest = ?', [
    nowMs,
    endsMs,
    Buffer.from(digest),
  ]);
}

export async function endSession(sql: Sql, digest: Uint8Array): Promise<void> {
  await sql.change('DELETE FROM person_session WHERE digest = ?', [Buffer.from(digest)]);
}

/** Ends all sessions of a person, but for one where one is kept. */
export async function endSessionsOf(sql: Sql, person: number, kept?: Uint8Array): Promise<void> {
  await sql.change('DELETE FROM person_session WHERE person_id = ? AND house_id = ? AND digest <> ?', [
    person,
    sql.house,
    Buffer.from(kept ?? new Uint8Array(32)),
  ]);
}

export async function forgetEndedSessions(sql: Sql, nowMs: number): Promise<void> {
  await sql.change('DELETE FROM person_session WHERE ends_ms <= ?', [nowMs]);
}
