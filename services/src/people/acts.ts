import { csvText } from '@melto/core/text/csvText';
import { insertAct, listActs } from '@melto/store/acts';
import type { ActRow } from '@melto/store/acts';
import { rowState } from '@melto/store/rowState';
import type { RowState } from '@melto/store/rowState';
import type { Context } from '../kernel/context.ts';
import type { Download } from '../kernel/download.ts';

export type Act = ActRow;

/** What a change came by. */
export interface ActOrigin {
  readonly keyId: number | null;
  readonly origin: string;
}

const MOST_DETAIL = 4000;
const MOST_OBJECT = 160;
const MOST_FILE = 100_000;
/** Fields that are never written down: codes of desks and what a passkey answers as well. */
const SECRET = /passphrase|secret|^key$|^before$|^code$|^response$/i;

/** Notes a change in the record, together with the change itself. */
export async function recordAct(
  context: Context,
  { keyId, origin }: ActOrigin,
  act: { readonly what: string; readonly object: string; readonly sent: unknown; readonly changed?: Changed },
): Promise<void> {
  await insertAct(context.database, {
    ...{ keyId, origin: origin.slice(0, 60), atMs: context.now() },
    ...{ what: act.what.slice(0, MOST_OBJECT), object: act.object.slice(0, MOST_OBJECT) },
    detail: detailOf(act.changed === undefined ? act.sent : withChanges(act.sent, act.changed)),
  });
}

/** What was otherwise before, by its name: before and after. */
export type Changed = Readonly<Record<string, readonly [unknown, unknown]>>;

/**
 * Looks at what an address names before it is changed. @returns what tells of its changes afterwards, of which there are
 * none where it has no row of its own: results are versions, and the one before is kept.
 */
export async function watchObject(
  context: Context,
  path: string,
): Promise<() => Promise<Changed | undefined>> {
  const [, kind = '', name] = /^\/api\/([^/]+)(?:\/([^/]+))?/.exec(path) ?? [];
  const look = (): Promise<RowState | undefined> => rowState(context.database, kind, name);
  const before = await look();
  return async () => {
    const after = before === undefined ? undefined : await look();
    if (before === undefined || after === undefined) return undefined;
    const changed = Object.keys(after).filter((column) => before[column] !== after[column]);
    return changed.length === 0
      ? undefined
      : Object.fromEntries(changed.map((column) => [column, [before[column], after[column]] as const]));
  };
}

const withChanges = (sent: unknown, changed: Changed): unknown => ({
  ...(typeof sent === 'object' && sent !== null && !Array.isArray(sent) ? sent : { sent }),
  changed,
});

/** What was sent as it is written down: files by their size, long lists by their length, no secrets. */
export function detailOf(sent: unknown): string {
  if (sent === undefined) return '';
  if (sent instanceof Uint8Array) return JSON.stringify({ file: `${sent.length} bytes` });
  const text = JSON.stringify(sent, (name, value: unknown) => {
    if (SECRET.test(name)) return '…';
    if (Array.isArray(value) && value.length > 40) return `${value.length} entries`;
    return typeof value === 'string' && value.length > 400 ? `${value.slice(0, 400)}…` : value;
  });
  return text.length > MOST_DETAIL ? `${text.slice(0, MOST_DETAIL)}…` : text;
}

export function acts(
  { database }: Context,
  asked: { readonly find?: string; readonly before?: number; readonly limit: number },
): Promise<Act[]> {
  return listActs(database, {
    find: asked.find ?? '',
    before: asked.before ?? Number.MAX_SAFE_INTEGER,
    limit: asked.limit,
  });
}

/** The record as a table of all its acts, the newest first. */
export async function actsFile(context: Context, find = ''): Promise<Download> {
  const rows = await listActs(context.database, { find, before: Number.MAX_SAFE_INTEGER, limit: MOST_FILE });
  const table = rows.map(({ atMs, person, key, origin, what, object, detail }) => [
    ...[new Date(atMs).toISOString(), person, key ?? '', origin, what, object, detail],
  ]);
  return {
    name: 'record-of-acts.csv',
    mediaType: 'text/csv; charset=utf-8',
    content: Buffer.from(csvText([['at', 'person', 'key', 'from', 'what', 'object', 'sent'], ...table])),
  };
}
