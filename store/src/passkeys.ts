import { isDuplicate } from './database.ts';
import type { Sql } from './database.ts';

export interface PasskeyRow {
  readonly id: number;
  readonly name: string;
  readonly madeMs: number;
  readonly usedMs: number | null;
}

/** What an answer of a device is judged by. */
export interface StoredPasskey {
  readonly id: number;
  readonly person: number;
  readonly publicKey: Buffer;
  readonly counter: number;
  readonly transports: string;
}

export function listPasskeys(sql: Sql): Promise<PasskeyRow[]> {
  return sql.rows(
    'SELECT id, name, made_ms AS madeMs, used_ms AS usedMs FROM passkey WHERE house_id = ? AND person_id = ? ORDER BY id',
    [sql.house, sql.person],
  );
}

/** What devices of a person are called by, so that none is asked twice. */
export async function listCredentials(sql: Sql): Promise<string[]> {
  const rows = await sql.rows<{ credential: Buffer }>(
    'SELECT credential FROM passkey WHERE house_id = ? AND person_id = ?',
    [sql.house, sql.person],
  );
  return rows.map(({ credential }) => credential.toString());
}

/** Keeps a passkey of a person; false where somebody has it already. */
export async function insertPasskey(
  sql: Sql,
  passkey: {
    readonly name: string;
    readonly credential: string;
    readonly publicKey: Uint8Array;
    readonly counter: number;
    readonly transports: string;
  },
  nowMs: number,
): Promise<boolean> {
  try {
    await sql.change(
      'INSERT INTO passkey (house_id, person_id, name, credential, public_key, counter, transports, made_ms) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
      [
        ...[sql.house, sql.person, passkey.name, Buffer.from(passkey.credential)],
        ...[Buffer.from(passkey.publicKey), passkey.counter, passkey.transports, nowMs],
      ],
    );
    return true;
  } catch (error) {
    if (isDuplicate(error)) return false;
    throw error;
  }
}

/** A passkey of somebody of the house who has not left. */
export async function findPasskey(sql: Sql, credential: string): Promise<StoredPasskey | undefined> {
  const [row] = await sql.rows<StoredPasskey>(
    `SELECT k.id, k.person_id AS person, k.public_key AS publicKey, k.counter, k.transports
     FROM passkey k JOIN person p ON p.id = k.person_id AND p.house_id = k.house_id
     WHERE k.credential = ? AND k.house_id = ? AND p.away_ms IS NULL`,
    [Buffer.from(credential), sql.house],
  );
  return row;
}

/** Notes that a passkey was used; false where another use has counted as far meanwhile. */
export async function notePasskeyUse(
  sql: Sql,
  id: number,
  { before, counter, nowMs }: { readonly before: number; readonly counter: number; readonly nowMs: number },
): Promise<boolean> {
  const { affected } = await sql.change(
    'UPDATE passkey SET counter = ?, used_ms = ? WHERE id = ? AND house_id = ? AND counter = ?',
    [counter, nowMs, id, sql.house, before],
  );
  return affected > 0;
}

export async function deletePasskey(sql: Sql, id: number): Promise<boolean> {
  const { affected } = await sql.change(
    'DELETE FROM passkey WHERE id = ? AND house_id = ? AND person_id = ?',
    [id, sql.house, sql.person],
  );
  return affected > 0;
}

export async function insertChallenge(
  sql: Sql,
  challenge: { readonly digest: Uint8Array; readonly person: number | null; readonly endsMs: number },
  nowMs: number,
): Promise<void> {
  await sql.change('DELETE FROM passkey_challenge WHERE ends_ms <= ?', [nowMs]);
  await sql.change(
    'INSERT INTO passkey_challenge (digest, house_id, person_id, ends_ms) VALUES (?, ?, ?, ?)',
    [...[Buffer.from(challenge.digest), sql.house, challenge.person, challenge.endsMs]],
  );
}

/** Takes a challenge, which nobody can answer again; false where there is none that stands. */
export async function takeChallenge(
  sql: Sql,
  digest: Uint8Array,
  person: number | null,
  nowMs: number,
): Promise<boolean> {
  const { affected } = await sql.change(
    'DELETE FROM passkey_challenge WHERE digest = ? AND house_id = ? AND person_id <=> ? AND ends_ms > ?',
    [Buffer.from(digest), sql.house, person, nowMs],
  );
  return affected > 0;
}
