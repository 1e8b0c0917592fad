import { channelCount, CMYK, sameProcess } from '@melto/core/device/process';
import { randomUUID } from 'node:crypto';
import { patchXyz } from '@melto/core/cgats/patchColours';
import type { MeasurementConditions, PatchSet } from '@melto/core/cgats/patchSet';
import { readPatchSet } from '@melto/core/cgats/patchSetFromCgats';
import { patchSetToCgats } from '@melto/core/cgats/patchSetToCgats';
import { writeCgats } from '@melto/core/cgats/writeCgats';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { labToXyz } from '@melto/core/colour/xyzToLab';
import { publishedAims } from '@melto/core/conformity/aims';
import type { Aims } from '@melto/core/conformity/aims';
import { PUBLISHED_CONDITIONS } from '@melto/core/conformity/data/publishedConditions';
import { profileAims } from '@melto/core/conformity/profileAims';
import { readIcc } from '@melto/core/icc/readIcc';
import { issueText, unwrap } from '@melto/core/result';
import type { Issue } from '@melto/core/result';
import {
  findAimSet,
  insertAimSet,
  listAimSets,
  listAimSetVersions,
  listPublishedFamilies,
  setAimSetRemoved,
} from '@melto/store/aimSets';
import type { AimSetRow, AimSetSource } from '@melto/store/aimSets';
import { askedSet } from './checkChoice.ts';
import { domainNow } from '../kernel/clock.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { notFound, Problem } from '../kernel/problem.ts';
import { completeReading, loadReading } from '../reading/loadReading.ts';

/** An aim set as lists show it. */
export interface AimSetView extends Omit<AimSetRow, 'conditions'> {
  readonly conditions: MeasurementConditions;
  /** Only paper, solids, overprints and tone values are given; all else is completed from them. */
  readonly completed: boolean;
}

function viewOf(row: AimSetRow): AimSetView {
  return {
    ...row,
    conditions: JSON.parse(row.conditions) as MeasurementConditions,
    completed: row.source === 'published',
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
    reference === null ? publishedAims(publishedOf(row.family)) : aimsOf(reference, view),
  );
  return { view, aims };
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

/** Only what aims need: ids, device values, colours, spectra where there are any. */
function referenceOf(set: PatchSet): string {
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

const MOST_PATCHES = 20_000;

export interface NewAimSet {
  readonly name: string;
  /** The family to add a version to; a new one otherwise. */
  readonly versionOf?: number;
}

/** Takes a CGATS characterisation or a CMYK profile as an aim set. */
export async function createAimSetFromFile(
  context: Context,
  input: NewAimSet,
  fileName: string,
  bytes: Uint8Array,
): Promise<{ readonly id: number; readonly notes: readonly string[] }> {
  if (Buffer.from(bytes.subarray(36, 40)).toString('latin1') === 'acsp') {
    const profile = readIcc(bytes);
    if (!profile.ok) throw refused(profile.issues);
    const sampled = profileAims(profile.value);
    if (!sampled.ok) throw refused(sampled.issues);
    const { device, xyz } = sampled.value;
    const id = await store(context, input, 'profile', `Profile ${fileName}`, {
      ids: Array.from({ length: device.length / channelCount(CMYK) }, (_, i) => String(i + 1)),
      process: CMYK,
      device,
      xyz,
      conditions: { illuminant: 'D50', observer: '2' },
      notes: [],
    });
    return { id, notes: ['A profile does not tell its measurement mode; none is compared.'] };
  }
  const parsed = readPatchSet(Buffer.from(bytes).toString('utf8'));
  if (!parsed.ok) throw refused(parsed.issues);
  const set = parsed.value;
  if (!sameProcess(set.process, CMYK) || patchXyz(set) === undefined)
    throw new Problem(
      'bad-input',
      `${fileName} has no CMYK values with colours.`,
      'Take a characterisation with CMYK and spectra, XYZ or Lab.',
      'file',
    );
  if (set.ids.length > MOST_PATCHES)
    throw new Problem(
      'too-large',
      `${fileName} has ${set.ids.length} patches.`,
      `Take ${MOST_PATCHES} at most.`,
    );
  const id = await store(context, input, 'data', `${set.title ?? 'Characterisation'}, from ${fileName}`, set);
  return { id, notes: set.notes };
}

function refused(issues: readonly Issue[]): Problem {
  return new Problem(
    'bad-input',
    `The file cannot be used: ${issues.map(issueText).join('; ')}.`,
    'Nothing was stored. Mend the file and choose it again.',
    'file',
  );
}

/** A house standard: what a reading measured, for the values that its chart asks for. */
export async function createAimSetFromReading(
  context: Context,
  input: NewAimSet,
  readingId: number,
): Promise<{ readonly id: number }> {
  const { print } = await loadReading(context, readingId);
  const asked = askedSet(await completeReading(context, print.conditionId, readingId));
  const id = await store(context, input, 'reading', `Reading of ${print.code}`, {
    ...asked,
    lab: undefined,
  });
  return { id };
}

export interface AimByHand {
  /** C, M, Y, K in per cent. */
  readonly device: readonly number[];
  readonly lab: readonly [number, number, number];
}

export async function createAimSetByHand(
  context: Context,
  input: NewAimSet,
  rows: readonly AimByHand[],
  conditions: MeasurementConditions,
): Promise<{ readonly id: number }> {
  const xyz = rows.flatMap(({ lab }) => [...labToXyz(lab, WHITE_D50_MEASURED)]);
  const id = await store(context, input, 'by hand', 'Typed in', {
    ids: rows.map((_, i) => String(i + 1)),
    process: CMYK,
    device: Float64Array.from(rows.flatMap(({ device }) => device.map((value) => value / 100))),
    xyz: Float64Array.from(xyz),
    conditions,
    notes: [],
  });
  return { id };
}

async function store(
  context: Context,
  { name, versionOf }: NewAimSet,
  source: AimSetSource,
  origin: string,
  set: PatchSet,
): Promise<number> {
  const before = versionOf === undefined ? undefined : await findAimSet(context.database, versionOf);
  if (versionOf !== undefined && before === undefined) throw notFound(`aim set ${versionOf}`);
  if (before !== undefined && !before.family.startsWith('own-'))
    throw new Problem(
      'conflict',
      `${before.name} comes with Melto and stays as it is.`,
      'Save it under another name.',
      'versionOf',
    );
  const row = {
    family: before?.family ?? `own-${randomUUID()}`,
    name,
    origin: origin.slice(0, 600),
    source,
    conditions: set.conditions,
    patches: set.ids.length,
    reference: referenceOf(set),
    madeMs: await domainNow(context),
  };
  return unitOfWork(context, ({ database }) => insertAimSet(database, row));
}

/** Takes an aim set off the lists, or puts it back; checks that used it keep it. */
export async function removeAimSet(context: Context, id: number, removed: boolean): Promise<void> {
  const row = await findAimSet(context.database, id);
  if (row === undefined) throw notFound(`aim set ${id}`);
  if (!row.family.startsWith('own-'))
    throw new Problem('conflict', `${row.name} comes with Melto and stays.`, 'Remove own aim sets only.');
  await setAimSetRemoved(context.database, row.family, removed ? context.now() : null);
}
