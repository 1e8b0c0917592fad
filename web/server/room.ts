import { statfs } from 'node:fs/promises';
import { ROOM_MB } from '@/endpoints/house';
import { Problem } from '@melto/services/kernel/problem';

const LOOKED_EVERY_MS = 5000;

let looked: { readonly atMs: number; readonly megabytes: number | undefined } | undefined;

/**
 * Free space of the disk that the database stands on, in MB, as it was some seconds ago at most; undefined where the
 * database is on another machine.
 * @param folder of the database, as the start of Melto tells it.
 */
export async function roomLeft(
  nowMs = Date.now(),
  folder = process.env['MELTO_DATABASE_FOLDER'],
  ask: (path: string) => Promise<{ readonly bavail: number; readonly bsize: number }> = statfs,
): Promise<number | undefined> {
  if (folder === undefined || folder === '') return undefined;
  if (looked !== undefined && nowMs - looked.atMs < LOOKED_EVERY_MS) return looked.megabytes;
  const found = await ask(folder).catch(() => undefined);
  looked = { atMs: nowMs, megabytes: found === undefined ? undefined : (found.bavail * found.bsize) / 1e6 };
  return looked.megabytes;
}

/** Refuses to store anything where the disk is nearly full: a database without room would end in the middle of a sheet. */
export function requireRoom(megabytes: number | undefined): void {
  if (megabytes !== undefined && megabytes < ROOM_MB.least)
    throw new Problem(
      'no-room',
      `Nothing can be stored: the disk of the database has ${Math.floor(megabytes)} MB left.`,
      `Nothing is lost. Make room on it, ${ROOM_MB.least} MB at least, and send it again.`,
    );
}
