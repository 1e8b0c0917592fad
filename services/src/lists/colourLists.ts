import { randomUUID } from 'node:crypto';
import { compareLists } from '@melto/core/lists/compareLists';
import type { ListChanges } from '@melto/core/lists/compareLists';
import { listText } from '@melto/core/lists/listText';
import type { ListedColour } from '@melto/core/refine/namedColour';
import { issueText } from '@melto/core/result';
import {
  findColourList,
  insertColourList,
  listColourLists,
  listColourListVersions,
  nameColourList,
  setColourListRemoved,
} from '@melto/store/colourLists';
import type { ColourListRow } from '@melto/store/colourLists';
import { domainNow } from '../kernel/clock.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { fileName } from '../kernel/download.ts';
import type { Download } from '../kernel/download.ts';
import { named } from '../kernel/named.ts';
import { notFound, Problem } from '../kernel/problem.ts';

export type { ColourListRow };

/** Lists that the library shows. */
export const MOST_LISTS = 400;
const MOST_ORIGIN = 300;
const NOTHING_STORED = 'Nothing was stored. Take CxF, CGATS, or CSV with the columns name, L, a, b.';

/** A version of a colour list, with its colours. */
export interface ColourList extends ColourListRow {
  readonly colours: readonly ListedColour[];
}

/** The latest version of each list of the house. */
export function colourLists({ database }: Context): Promise<ColourListRow[]> {
  return listColourLists(database, MOST_LISTS);
}

export async function colourListOf({ database }: Context, id: number): Promise<ColourList> {
  const row = await findColourList(database, id);
  if (row === undefined) throw notFound(`colour list ${id}`);
  return { ...row, colours: JSON.parse(row.colours) as ListedColour[] };
}

/** A list, its versions, and what became of the colours from the version before to this one. */
export interface ColourListDetail extends ColourList {
  readonly versions: readonly ColourListRow[];
  readonly changes: ListChanges | null;
}

export async function colourListDetail(context: Context, id: number): Promise<ColourListDetail> {
  const list = await colourListOf(context, id);
  const versions = await listColourListVersions(context.database, list.family);
  const before = versions.find(({ version }) => version === list.version - 1);
  return {
    ...list,
    versions,
    changes:
      before === undefined
        ? null
        : compareLists((await colourListOf(context, before.id)).colours, list.colours),
  };
}

/** The colours of a list that was given; nothing is stored. */
export async function readColours({ readUpload }: Context, text: string): Promise<readonly ListedColour[]> {
  const read = await readUpload({ kind: 'colours', file: text });
  if (!read.ok)
    throw new Problem(
      'bad-input',
      `The list cannot be used: ${read.issues.map(issueText).join('; ')}.`,
      NOTHING_STORED,
      'file',
    );
  return read.value;
}

export interface NewColourList {
  readonly name: string;
  /** The list to add a version to; a new one otherwise. */
  readonly versionOf?: number;
}

/** Keeps a list as it stands in a file. */
export async function takeColourList(
  context: Context,
  input: NewColourList,
  file: { readonly name: string; readonly text: string },
): Promise<{ readonly id: number }> {
  const colours = await readColours(context, file.text);
  return keepColourList(context, input, `From ${file.name}`, colours);
}

/** Keeps colours as a new list, or as the next version of one. */
export async function keepColourList(
  context: Context,
  { name, versionOf }: NewColourList,
  origin: string,
  colours: readonly ListedColour[],
): Promise<{ readonly id: number }> {
  const before = versionOf === undefined ? undefined : await colourListOf(context, versionOf);
  if (before !== undefined && before.removedMs !== null)
    throw new Problem('conflict', `${before.name} was removed.`, 'Take it back first, or make a new list.');
  const row = {
    ...{ colours, origin: origin.slice(0, MOST_ORIGIN), note: before?.note ?? '' },
    tolerance: before?.tolerance ?? null,
    name: named(name, 'name', 'list'),
    family: before?.family ?? randomUUID(),
    spectra: colours.filter(({ spectrum }) => spectrum !== undefined).length,
    madeMs: await domainNow(context),
  };
  return unitOfWork(context, async ({ database }) => ({ id: await insertColourList(database, row) }));
}

/** Name, note and tolerance, of all versions. */
export async function changeColourList(
  context: Context,
  id: number,
  {
    name,
    note,
    tolerance = null,
  }: { readonly name: string; readonly note: string; readonly tolerance?: number | null },
): Promise<void> {
  const words = { name: named(name, 'name', 'list'), note: note.trim(), tolerance };
  await ofFamily(context, id, (inner, family) => nameColourList(inner.database, family, words));
}

/** Removes a list with all its versions, or takes it back; what was made of it keeps its colours. */
export async function removeColourList(context: Context, id: number, removed: boolean): Promise<void> {
  const ms = removed ? context.now() : null;
  await ofFamily(context, id, (inner, family) => setColourListRemoved(inner.database, family, ms));
}

async function ofFamily(
  context: Context,
  id: number,
  change: (context: Context, family: string) => Promise<void>,
): Promise<void> {
  await unitOfWork(context, async (inner) => {
    const row = await findColourList(inner.database, id);
    if (row === undefined) throw notFound(`colour list ${id}`);
    await change(inner, row.family);
  });
}

/** A version as CGATS. */
export async function colourListFile(context: Context, id: number): Promise<Download> {
  const { name, version, colours } = await colourListOf(context, id);
  return {
    name: `${fileName(name)} v${version}.txt`,
    mediaType: 'text/plain',
    content: new TextEncoder().encode(listText(name, colours)),
  };
}
