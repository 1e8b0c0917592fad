import { createHash } from 'node:crypto';
import { profileText } from '@melto/core/icc/profileText';
import {
  changeKeptProfile as changeRow,
  findKeptProfile,
  keepProfile as keepRow,
  setKeptProfileAway,
} from '@melto/store/keptProfiles';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { fileName } from '../kernel/download.ts';
import type { Download } from '../kernel/download.ts';
import { notFound } from '../kernel/problem.ts';
import { profileOfFile } from '../kernel/profileFile.ts';
import type { KeptWords } from '@melto/core/profile/keptOrigin';

const MOST_NAME = 160;

/** Keeps a profile of any kind on the shelf; the same file is kept once, and comes back where it was taken off. */
export async function keepProfile(
  context: Context,
  file: { readonly fileName: string; readonly bytes: Uint8Array },
  { origin, note }: KeptWords,
): Promise<{ readonly id: number }> {
  const profile = profileOfFile(file.fileName, file.bytes);
  const told = (profileText(profile, 'desc') ?? '').trim();
  return unitOfWork(context, async ({ database }) => ({
    id: await keepRow(
      database,
      {
        ...{ origin, note: note.trim(), content: file.bytes },
        digest: createHash('sha256').update(file.bytes).digest(),
        name: (told === '' ? file.fileName : told).slice(0, MOST_NAME),
        space: profile.header.colourSpace.trim(),
      },
      context.now(),
    ),
  }));
}

export async function changeKeptProfile(
  context: Context,
  id: number,
  { origin, note }: KeptWords,
): Promise<void> {
  await unitOfWork(context, async ({ database }) => {
    if (!(await changeRow(database, id, { origin, note: note.trim() }))) throw notFound(`kept profile ${id}`);
  });
}

/** Takes a profile off the shelf, or puts it back; its bytes stay. */
export async function putKeptProfileAway(context: Context, id: number, away: boolean): Promise<void> {
  await unitOfWork(context, async ({ database }) => {
    if (!(await setKeptProfileAway(database, id, away ? context.now() : null)))
      throw notFound(`kept profile ${id}`);
  });
}

export async function keptProfileFile({ database }: Context, id: number): Promise<Download> {
  const row = await findKeptProfile(database, id);
  if (row === undefined) throw notFound(`kept profile ${id}`);
  return {
    name: `${fileName(row.name)}.icc`,
    mediaType: 'application/vnd.iccprofile',
    content: row.content,
  };
}
