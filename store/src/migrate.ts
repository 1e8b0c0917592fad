import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Database } from './database.ts';

/** Runs the migrations that are missing, in the order of their names; one that was changed since is an error. */
export async function migrate(database: Database, folder: string): Promise<readonly string[]> {
  await database.change(
    'CREATE TABLE IF NOT EXISTS migration (name VARCHAR(120) NOT NULL PRIMARY KEY, checksum CHAR(64) NOT NULL, run_ms BIGINT NOT NULL) ENGINE=InnoDB',
  );
  const rows = await database.rows<{ name: string; checksum: string }>(
    'SELECT name, checksum FROM migration',
  );
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
    for (const statement of text.split(/;\s*\n/).map((part) => part.trim()))
      if (statement !== '') await database.change(statement);
    await database.change('INSERT INTO migration (name, checksum, run_ms) VALUES (?, ?, ?)', [
      name,
      checksum,
      Date.now(),
    ]);
    run.push(name);
  }
  return run;
}
