import { createHash } from 'node:crypto';
import { readdir, readFile, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { listFolderFeeds, setFeedHeard } from '@melto/store/feeds';
import { actingAs, unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { deliver } from './feeds.ts';
import { runOf } from './runs.ts';
import { sheetOfFile } from './sheetFile.ts';

/** A file is whole once nothing was written to it for so long. */
const QUIET_MS = 1500;
const MOST_BYTES = 8_000_000;
/** Files that one folder may hold. */
const MOST_FILES = 20_000;
const ENDINGS = /\.(txt|cgats|ti3|csv|cxf|xml)$/i;

/** Files that were looked at, as they were then: those that have not changed since are not opened again. */
export type SeenFiles = Map<string, string>;

/**
 * Looks through the folders of all houses and delivers what is new. Files stay where they are; what was delivered is known
 * by its content, also after a restart.
 */
export async function readFeedFolders(
  context: Context,
  seen: SeenFiles,
  nowMs = Date.now(),
): Promise<number> {
  let delivered = 0;
  for (const { id, house, person, folder, runId } of await listFolderFeeds(context.database)) {
    if (runId === null) continue;
    const acting = actingAs(context, { house, person });
    const trouble = await readFolder(acting, { id, folder, runId }, seen, nowMs, () => delivered++).catch(
      (error: unknown) => wordsOf(error, folder),
    );
    const key = `trouble ${id}`;
    if (trouble !== undefined && seen.get(key) !== trouble)
      await unitOfWork(acting, ({ database, now }) =>
        setFeedHeard(database, id, now(), trouble.slice(0, 400)),
      );
    if (trouble === undefined) seen.delete(key);
    else seen.set(key, trouble);
  }
  return delivered;
}

function wordsOf(error: unknown, what: string): string {
  if (error instanceof Problem) return `${what}: ${error.title}`;
  const { code } = error as { readonly code?: unknown };
  if (code === 'ENOENT' || code === 'ENOTDIR') return `There is no folder ${what} on the server.`;
  if (code === 'EACCES') return `The server may not read ${what}.`;
  throw error;
}

/** @returns what went wrong last, in words. */
async function readFolder(
  context: Context,
  { id, folder, runId }: { readonly id: number; readonly folder: string; readonly runId: number },
  seen: SeenFiles,
  nowMs: number,
  onDelivered: () => void,
): Promise<string | undefined> {
  const names = (await readdir(folder)).filter((name) => ENDINGS.test(name)).sort();
  if (names.length > MOST_FILES)
    return `${folder} holds ${names.length} files, more than ${MOST_FILES}: put the older ones away.`;
  let trouble: string | undefined;
  for (const name of names) {
    const path = join(folder, name);
    const { size, mtimeMs } = await stat(path);
    const key = `${id} ${runId} ${path}`;
    const mark = `${size} ${mtimeMs}`;
    const before = seen.get(key);
    if (before !== undefined && before.startsWith(mark)) {
      // What could not be taken is said as long as the file lies there.
      trouble = before.slice(mark.length + 1) || trouble;
      continue;
    }
    if (nowMs - mtimeMs < QUIET_MS) continue;
    const words = await deliverFile(context, { id, runId }, path, name, size).then(
      (state) => {
        if (state !== 'again') onDelivered();
        return '';
      },
      (error: unknown) => wordsOf(error, name),
    );
    seen.set(key, `${mark} ${words}`);
    trouble = words || trouble;
  }
  return trouble;
}

async function deliverFile(
  context: Context,
  { id, runId }: { readonly id: number; readonly runId: number },
  path: string,
  name: string,
  size: number,
): Promise<string> {
  if (size > MOST_BYTES)
    throw new Problem('too-large', `${name} has more than ${MOST_BYTES / 1e6} MB.`, 'Give one sheet a file.');
  const impression = counterOf(name);
  if (impression === undefined)
    throw new Problem(
      'bad-input',
      'the name does not end with the counter of the press',
      'Name it bar-001250.txt.',
    );
  const bytes = await readFile(path);
  const { settings } = await runOf(context, runId);
  const sheet = await sheetOfFile(context, bytes, { impression, mode: settings.mode });
  const digest = createHash('sha256').update(`${runId} ${impression} `).update(bytes).digest('hex');
  return (await deliver(context, id, { key: digest, ...sheet })).state;
}

/** The counter of the press at the end of a file’s name. */
export function counterOf(name: string): number | undefined {
  const found = /(\d{1,9})(?:\.[^.]*)?$/.exec(name.replace(ENDINGS, ''))?.[1];
  return found === undefined ? undefined : Number(found);
}
