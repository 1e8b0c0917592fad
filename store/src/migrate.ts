import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { errorNumber } from './database.ts';
import type { Database, Sql } from './database.ts';

/** Longest wait for another start that migrates. */
const LOCK_WAIT_S = 300;
/**
 * MariaDB's errors that say that a change of the schema is there already, or that what it takes away is gone. A single
 * such statement is done wholly or not at all: after a step that was begun and not confirmed they mean that it was done.
 */
const DONE_ALREADY = new Set([1050, 1051, 1060, 1061, 1068, 1091, 1359, 1826]);

/**
 * Runs the migrations that are missing, in the order of their names, one statement a step. Starts at once wait for each
 * other; a migration that was killed goes on at its step; one that was changed since it ran is an error.
 */
export async function migrate(database: Database, folder: string): Promise<readonly string[]> {
  return database.transaction(async (sql) => {
    // The lock belongs to this transaction's connection: it ends with whoever holds it.
    const [lock] = await sql.rows<{ got: number | null }>(
      "SELECT GET_LOCK(CONCAT('melto-migrate-', DATABASE()), ?) AS got",
      [LOCK_WAIT_S],
    );
    if (lock?.got !== 1) throw new Error(`another migration has not ended within ${LOCK_WAIT_S} s`);
    try {
      return await migrateLocked(sql, folder);
    } finally {
      await sql.rows("SELECT RELEASE_LOCK(CONCAT('melto-migrate-', DATABASE()))");
    }
  });
}

async function migrateLocked(sql: Sql, folder: string): Promise<readonly string[]> {
  await sql.change(
    'CREATE TABLE IF NOT EXISTS migration (name VARCHAR(120) NOT NULL PRIMARY KEY, checksum CHAR(64) NOT NULL, run_ms BIGINT NOT NULL) ENGINE=InnoDB',
  );
  await sql.change(
    'CREATE TABLE IF NOT EXISTS migration_step (name VARCHAR(120) NOT NULL, step INT UNSIGNED NOT NULL, done TINYINT(1) NOT NULL, PRIMARY KEY (name, step)) ENGINE=InnoDB',
  );
  const rows = await sql.rows<{ name: string; checksum: string }>('SELECT name, checksum FROM migration');
  const known = new Map(rows.map(({ name, checksum }) => [name, checksum]));
  const run: string[] = [];
  for (const name of readdirSync(folder)
    .filter((file) => file.endsWith('.sql'))
    .sort()) {
    const text = readFileSync(join(folder, name), 'utf8');
    const checksum = createHash('sha256').update(text).digest('hex');
    const before = known.get(name);
    if (before === checksum) continue;
    if (before !== undefined) throw new Error(`migration ${name} was changed after it had run`);
    await runSteps(sql, name, text);
    await sql.change('INSERT INTO migration (name, checksum, run_ms) VALUES (?, ?, ?)', [
      name,
      checksum,
      Date.now(),
    ]);
    await sql.change('DELETE FROM migration_step WHERE name = ?', [name]);
    await sql.change('COMMIT');
    run.push(name);
  }
  return run;
}

async function runSteps(sql: Sql, name: string, text: string): Promise<void> {
  const begun = new Map(
    (
      await sql.rows<{ step: number; done: number }>('SELECT step, done FROM migration_step WHERE name = ?', [
        name,
      ])
    ).map(({ step, done }) => [step, done === 1]),
  );
  const statements = text
    .split(/;\s*\n/)
    .map((part) => part.trim())
    .filter((part) => part !== '');
  for (const [step, statement] of statements.entries()) {
    if (begun.get(step) === true) continue;
    // Changes of the schema commit by themselves; changes of rows are kept together with the mark of their step.
    if (changesRows(statement)) await sql.change('START TRANSACTION');
    else {
      await sql.change('INSERT IGNORE INTO migration_step (name, step, done) VALUES (?, ?, 0)', [name, step]);
      await sql.change('COMMIT');
    }
    try {
      await sql.change(statement);
    } catch (error) {
      if (!begun.has(step) || !DONE_ALREADY.has(errorNumber(error) ?? 0))
        throw new Error(`migration ${name}, statement ${step + 1}: ${String(error)}`, { cause: error });
    }
    await sql.change(
      'INSERT INTO migration_step (name, step, done) VALUES (?, ?, 1) ON DUPLICATE KEY UPDATE done = 1',
      [name, step],
    );
    await sql.change('COMMIT');
  }
}

function changesRows(statement: string): boolean {
  return /^(INSERT|UPDATE|DELETE)\b/i.test(statement);
}
