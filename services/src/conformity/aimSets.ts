import { channelCount, CMYK, sameProcess } from '@melto/core/device/process';
import { patchXyz } from '@melto/core/cgats/patchColours';
import type { MeasurementConditions, PatchSet } from '@melto/core/cgats/patchSet';
import { readPatchSet } from '@melto/core/cgats/patchSetFromCgats';
import { patchSetToCgats } from '@melto/core/cgats/patchSetToCgats';
import { writeCgats } from '@melto/core/cgats/writeCgats';
import { publishedAims } from '@melto/core/conformity/aims';
import type { Aims } from '@melto/core/conformity/aims';
import { aimsOnPaper } from '@melto/core/conformity/aimsOnPaper';
import { PUBLISHED_CONDITIONS } from '@melto/core/conformity/data/publishedConditions';
import type { PaperMove } from '@melto/core/conformity/substrateCorrected';
import { unwrap } from '@melto/core/result';
import {
  findAimSet,
  insertAimSet,
  listAimSets,
  listAimSetVersions,
  listPublishedFamilies,
  setAimSetRemoved,
} from '@melto/store/aimSets';
import type { AimSetRow } from '@melto/store/aimSets';
import { lockHouse } from '@melto/store/houses';
import { domainNow } from '../kernel/clock.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { notFound, Problem } from '../kernel/problem.ts';

/** Where aims on a paper come from, and how they moved. */
export interface MovedAims {
  readonly fromId: number;
  readonly fromFamily: string;
  readonly fromName: string;
  readonly fromVersion: number;
  readonly move: PaperMove;
  /** What the paper was taken from, in words. */
  readonly paper: string;
  /** What it was moved from is completed from published solids. */
  readonly completed: boolean;
}

/** An aim set as lists show it. */
export interface AimSetView extends Omit<AimSetRow, 'conditions' | 'moved'> {
  readonly conditions: MeasurementConditions;
  readonly moved: MovedAims | null;
  /** Only paper, solids, overprints and tone values are given; all else is completed from them. */
  readonly completed: boolean;
}

function viewOf(row: AimSetRow): AimSetView {
  const moved = row.moved === null ? null : (JSON.parse(row.moved) as MovedAims);
  return {
    ...row,
    conditions: JSON.parse(row.conditions) as MeasurementConditions,
    moved,
    completed: row.source === 'published' || moved?.completed === true,
  };
}

export async function aimSets(context: Context): Promise<AimSetView[]> {
  return (await listAimSets(context.database)).map(viewOf);
}

export async function aimSetVersions(context: Context, id: number): Promise<AimSetView[]> {
  const row = await findAimSet(context.database, id);
  if (row === undefined) throw notFound(`aim set ${id}`);
  return (await listAimSetVersions(context.database, row.family)).map(viewOf);
}

const MOST_LOADED = 40;

/** An aim set, whose data are parsed the first time they are asked for. */
export async function loadAims(
  context: Context,
  id: number,
): Promise<{ readonly view: AimSetView; readonly aims: Aims }> {
  const row = await findAimSet(context.database, id);
  if (row === undefined) throw notFound(`aim set ${id}`);
  const { reference, ...rest } = row;
  const view = viewOf(rest);
  const aims = await context.cache.keep('aims', MOST_LOADED, context.database, id, async () =>
    reference === null ? completedOf(view) : aimsOf(reference, view),
  );
  return { view, aims };
}

function completedOf({ family, conditions, moved }: AimSetView): Aims {
  const aims = { ...publishedAims(publishedOf(moved?.fromFamily ?? family)), conditions };
  return moved === null ? aims : aimsOnPaper(aims, moved.move);
}

function publishedOf(family: string): (typeof PUBLISHED_CONDITIONS)[number] {
  const found = PUBLISHED_CONDITIONS.find(({ key }) => key === family);
  if (found === undefined) throw new Error(`no published condition ${family}`);
  return found;
}

function aimsOf(reference: string, { conditions }: AimSetView): Aims {
  const set = unwrap(readPatchSet(reference));
  const xyz = patchXyz(set);
  if (set.device === undefined || xyz === undefined) throw new Error('an aim set without values');
  return { conditions, device: set.device, xyz, spectra: set.spectra };
}

/**
 * Makes the published conditions known: by their full characterisations where these are on this machine, else
 * completed from their solids. A characterisation that turns up later becomes the next version.
 * @param files CGATS text by the condition's key.
 */
export async function registerPublishedAims(
  context: Context,
  files: ReadonlyMap<string, string> = new Map(),
): Promise<void> {
  const { database, now } = context;
  const known = await listPublishedFamilies(database);
  for (const condition of PUBLISHED_CONDITIONS) {
    const own = known.filter(({ family }) => family === condition.key);
    const text = files.get(condition.key);
    const parsed = text === undefined ? undefined : readPatchSet(text);
    const full = parsed?.ok === true && sameProcess(parsed.value.process, CMYK) ? parsed.value : undefined;
    if (own.some(({ source }) => source === 'data') || (own.length > 0 && full === undefined)) continue;
    await insertAimSet(database, {
      family: condition.key,
      name: condition.name,
      origin:
        full === undefined
          ? `${condition.origin}. Completed from published solids and tone values.`
          : `${condition.origin}. Full characterisation, ${full.ids.length} patches.`,
      source: full === undefined ? 'published' : 'data',
      conditions: publishedAims(condition).conditions,
      patches: full?.ids.length ?? 9,
      reference: full === undefined ? null : referenceOf(full),
      madeMs: now(),
    });
  }
}

/** A person says in which mode the colours of an aim set were measured, where its data do not: its next version. */
export async function sayAimMode(
  context: Context,
  id: number,
  mode: NonNullable<MeasurementConditions['mode']>,
): Promise<{ readonly id: number }> {
  const madeMs = await domainNow(context);
  return unitOfWork(context, async ({ database }) => {
    // Two that say it at once follow each other.
    await lockHouse(database);
    const asked = await findAimSet(database, id);
    if (asked === undefined) throw notFound(`aim set ${id}`);
    const [latest] = await listAimSetVersions(database, asked.family);
    if (latest.id !== id)
      throw new Problem('conflict', `${latest.name} has a newer version.`, 'Say it of the latest one.');
    const conditions = viewOf(latest).conditions;
    if (conditions.mode !== undefined)
      throw new Problem(
        'conflict',
        `${latest.name} is for ${conditions.mode} already.`,
        'Make an aim set of your own where it should be another.',
      );
    const { family, name, source, patches, reference } = asked;
    const origin = `${asked.origin} Taken for ${mode}, as the house said.`;
    return {
      id: await insertAimSet(database, {
        ...{ family, name, source, patches, reference, madeMs },
        origin,
        conditions: { ...conditions, mode },
      }),
    };
  });
}

/** Aims as patches, one by one. */
export function aimPatches({ conditions, device, xyz, spectra }: Aims): PatchSet {
  return {
    ids: Array.from({ length: device.length / channelCount(CMYK) }, (_, row) => String(row + 1)),
    ...{ process: CMYK, device, xyz, spectra, conditions, notes: [] },
  };
}

/** Only what aims need: ids, device values, colours, spectra where there are any. */
export function referenceOf(set: PatchSet): string {
  return writeCgats(
    patchSetToCgats({
      ids: set.ids,
      process: CMYK,
      device: set.device,
      xyz: patchXyz(set),
      spectra: set.spectra,
      conditions: set.conditions,
      notes: [],
      originator: 'Melto',
      title: set.title,
    }),
  );
}

/** Takes an aim set off the lists, or puts it back; checks that used it keep it. */
export async function removeAimSet(context: Context, id: number, removed: boolean): Promise<void> {
  const row = await findAimSet(context.database, id);
  if (row === undefined) throw notFound(`aim set ${id}`);
  if (!row.family.startsWith('own-'))
    throw new Problem('conflict', `${row.name} comes with Melto and stays.`, 'Remove own aim sets only.');
  await setAimSetRemoved(context.database, row.family, removed ? context.now() : null);
}
