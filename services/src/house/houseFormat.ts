import { createHash } from 'node:crypto';
import type { Hash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { Transform } from 'node:stream';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGunzip } from 'node:zlib';
import { Problem } from '../kernel/problem.ts';

/**
 * A saved house: gzip of SQL, as any MariaDB reads it. Its first line tells what it is, its last one the SHA-256 of all
 * bytes before it.
 */
const FIRST = '-- melto house ';
const LAST = '\n-- sha256 ';
export const FORMAT = 1;
const LAST_BYTES = LAST.length + 64 + 1;
const MOST_HEAD = 100_000;
export interface HouseHead {
  readonly format: number;
  readonly madeAt: string;
  /** Migrations that had run in it. */
  readonly migrations: readonly string[];
}

/** Puts the first line before what goes through, and the checksum of both after it. */
export function framed(head: HouseHead): Transform {
  const hash = createHash('sha256');
  const first = Buffer.from(`${FIRST}${JSON.stringify(head)}\n`);
  let begun = false;
  return new Transform({
    transform(chunk: Buffer, _, done) {
      const out = begun ? chunk : Buffer.concat([first, chunk]);
      begun = true;
      hash.update(out);
      done(null, out);
    },
    flush(done) {
      if (!begun) return done(new Error('there is nothing to save'));
      return done(null, Buffer.from(`${LAST}${hash.digest('hex')}\n`));
    },
  });
}

/** Holds the last line back from what goes through, and says in the end whether it is right. */
function unframed(hash: Hash): { readonly through: Transform; readonly said: () => string } {
  let held = Buffer.alloc(0);
  const through = new Transform({
    transform(chunk: Buffer, _, done) {
      const all = held.length === 0 ? chunk : Buffer.concat([held, chunk]);
      const out = all.subarray(0, Math.max(0, all.length - LAST_BYTES));
      held = Buffer.from(all.subarray(out.length));
      hash.update(out);
      done(null, out);
    },
  });
  return { through, said: () => held.toString('latin1') };
}

export const damaged = (file: string, what: string): Problem =>
  new Problem(
    'bad-input',
    `${file} is no whole saved house: ${what}.`,
    'Nothing was changed. Take another copy.',
  );

/** Reads a saved house through to its end; a Problem says what is wrong with it. */
export async function checkHouseFile(file: string): Promise<HouseHead> {
  return readHouse(file, async (stream) => {
    for await (const chunk of stream) void chunk;
  });
}

export async function readHouse(file: string, take: (sql: Readable) => Promise<void>): Promise<HouseHead> {
  const hash = createHash('sha256');
  const { through, said } = unframed(hash);
  let head: HouseHead | undefined;
  let begin = Buffer.alloc(0);
  const heading = new Transform({
    transform(chunk: Buffer, _, done) {
      if (head === undefined) {
        begin = Buffer.concat([begin, chunk.subarray(0, MOST_HEAD)]);
        const end = begin.indexOf(10);
        if (end < 0 && begin.length >= MOST_HEAD) return done(damaged(file, 'it does not say what it is'));
        if (end >= 0) {
          head = headOf(begin.subarray(0, end).toString());
          if (head === undefined) return done(damaged(file, 'it does not say what it is'));
        }
      }
      return done(null, chunk);
    },
  });
  const source = createReadStream(file);
  try {
    await Promise.all([pipeline(source, createGunzip(), through, heading), take(heading)]);
  } catch (error) {
    if (error instanceof Problem) throw error;
    const { code } = error as NodeJS.ErrnoException;
    if (code === 'ENOENT') throw damaged(file, 'there is no such file');
    if (code?.startsWith('Z_') === true) throw damaged(file, 'it was cut off or changed');
    throw error;
  }
  if (head === undefined) throw damaged(file, 'it does not say what it is');
  if (said() !== `${LAST}${hash.digest('hex')}\n`) throw damaged(file, 'its checksum is another');
  return head;
}

function headOf(line: string): HouseHead | undefined {
  if (!line.startsWith(FIRST)) return undefined;
  try {
    const head = JSON.parse(line.slice(FIRST.length)) as Partial<HouseHead>;
    const { format, madeAt, migrations } = head;
    return format === FORMAT && typeof madeAt === 'string' && Array.isArray(migrations)
      ? { format, madeAt, migrations: migrations.map(String) }
      : undefined;
  } catch {
    return undefined;
  }
}
