import { keptPicture } from '@melto/paper/keptPicture';
import { issueText } from '@melto/core/result';
import { lockCondition } from '@melto/store/conditions';
import { lockHouse } from '@melto/store/houses';
import { findLogo, findPicture, insertPicture, listPictures, setPictureRemoved } from '@melto/store/pictures';
import type { PictureRow } from '@melto/store/pictures';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import type { Download } from '../kernel/download.ts';
import { notFound, Problem } from '../kernel/problem.ts';
import { conditionOf } from '../ledger/conditions.ts';

export type { PictureRow };

const MOST_PICTURES = 12;
/** A logo stands small on reports. */
const LOGO_SIDE = 600;

/** Keeps a picture of a driver's dialog with the settings record of a condition. */
export async function addPicture(
  context: Context,
  conditionId: number,
  name: string,
  file: Uint8Array,
): Promise<{ readonly id: number }> {
  await conditionOf(context, conditionId);
  const kept = await drawn(file);
  return unitOfWork(context, async ({ database }) => {
    await lockCondition(database, conditionId);
    if ((await listPictures(database, conditionId)).length >= MOST_PICTURES)
      throw new Problem(
        'conflict',
        `A settings record has ${MOST_PICTURES} pictures at most.`,
        'Remove one that does not matter any more.',
      );
    const row = { conditionId, name: named(name), madeMs: context.now(), ...kept };
    return { id: await insertPicture(database, row) };
  });
}

/** Takes a picture as the house's logo, in the place of the one before. */
export async function setLogo(
  context: Context,
  name: string,
  file: Uint8Array,
): Promise<{ readonly id: number }> {
  const kept = await drawn(file, LOGO_SIDE);
  return unitOfWork(context, async ({ database }) => {
    await lockHouse(database);
    const nowMs = context.now();
    for (const { id } of await listPictures(database, null)) await setPictureRemoved(database, id, nowMs);
    return {
      id: await insertPicture(database, { conditionId: null, name: named(name), madeMs: nowMs, ...kept }),
    };
  });
}

/** Pictures of a condition's settings, the oldest first. */
export function picturesOf({ database }: Context, conditionId: number): Promise<PictureRow[]> {
  return listPictures(database, conditionId);
}

/** The house's logo; undefined where it has none. */
export function logoOf({ database }: Context): Promise<PictureRow | undefined> {
  return findLogo(database);
}

export async function pictureFile({ database }: Context, id: number): Promise<Download> {
  const row = await findPicture(database, id);
  if (row === undefined) throw notFound(`picture ${id}`);
  return { name: `${row.name}.png`, mediaType: 'image/png', content: row.png };
}

/** Takes a picture off, or puts it back. */
export async function removePicture(context: Context, id: number, removed: boolean): Promise<void> {
  if ((await findPicture(context.database, id)) === undefined) throw notFound(`picture ${id}`);
  await unitOfWork(context, ({ database }) =>
    setPictureRemoved(database, id, removed ? context.now() : null),
  );
}

async function drawn(file: Uint8Array, mostSide?: number) {
  const kept = await keptPicture(file, mostSide);
  if (kept.ok) return kept.value;
  throw new Problem(
    'bad-input',
    `The picture cannot be used: ${kept.issues.map(issueText).join('; ')}.`,
    'Nothing was stored. Give another one.',
    'file',
  );
}

/** The name of a file without its ending, short enough to stand below its picture. */
function named(name: string): string {
  return name.replace(/\.[a-z0-9]{1,5}$/i, '').slice(0, 120) || 'picture';
}
