import { fileText } from '../kernel/fileText.ts';
import { CMYK, sameProcess } from '@melto/core/device/process';
import { randomUUID } from 'node:crypto';
import { patchXyz } from '@melto/core/cgats/patchColours';
import type { MeasurementConditions, PatchSet } from '@melto/core/cgats/patchSet';
import { readPatchSet } from '@melto/core/cgats/patchSetFromCgats';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { labToXyz } from '@melto/core/colour/xyzToLab';
import { profileAims } from '@melto/core/conformity/profileAims';
import { readIcc } from '@melto/core/icc/readIcc';
import { xyzRange } from '@melto/core/measured/colourRange';
import { issueText } from '@melto/core/result';
import type { Issue } from '@melto/core/result';
import { findAimSet, insertAimSet } from '@melto/store/aimSets';
import type { AimSetSource, NewAimSetRow } from '@melto/store/aimSets';
import { askedSet } from './checkChoice.ts';
import { domainNow } from '../kernel/clock.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { notFound, Problem } from '../kernel/problem.ts';
import { completeReading, loadReading } from '../reading/loadReading.ts';
import { aimPatches, referenceOf } from './aimSets.ts';
import { refuseStandardName } from './ownName.ts';

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
    const conditions = { illuminant: 'D50', observer: '2' };
    const set = aimPatches({ device, xyz, conditions });
    const id = await store(context, input, 'profile', `Profile ${fileName}`, set);
    return {
      id,
      notes: [
        'A profile does not tell its measurement mode: say it in the library, or no check against it conforms.',
      ],
    };
  }
  const parsed = readPatchSet(fileText(bytes));
  if (!parsed.ok) throw refused(parsed.issues);
  const set = parsed.value;
  const xyz = patchXyz(set);
  if (!sameProcess(set.process, CMYK) || xyz === undefined)
    throw new Problem(
      'bad-input',
      `${fileName} has no CMYK values with colours.`,
      'Take a characterisation with CMYK and spectra, XYZ or Lab.',
      'file',
    );
  const range = xyzRange(xyz);
  if (!range.ok) throw refused(range.issues);
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

function store(
  context: Context,
  input: NewAimSet,
  source: AimSetSource,
  origin: string,
  set: PatchSet,
): Promise<number> {
  const { conditions } = set;
  return keepAimSet(context, input, {
    ...{ source, origin, conditions },
    patches: set.ids.length,
    reference: referenceOf(set),
  });
}

/** Keeps an aim set of the house's own: a new one, or the next version of one. */
export async function keepAimSet(
  context: Context,
  { name, versionOf }: NewAimSet,
  row: Omit<NewAimSetRow, 'family' | 'name' | 'madeMs'>,
): Promise<number> {
  refuseStandardName(name);
  const before = versionOf === undefined ? undefined : await findAimSet(context.database, versionOf);
  if (versionOf !== undefined && before === undefined) throw notFound(`aim set ${versionOf}`);
  if (before !== undefined && !before.family.startsWith('own-'))
    throw new Problem(
      'conflict',
      `${before.name} comes with Melto and stays as it is.`,
      'Save it under another name.',
      'versionOf',
    );
  const madeMs = await domainNow(context);
  const family = before?.family ?? `own-${randomUUID()}`;
  const origin = row.origin.slice(0, 600);
  return unitOfWork(context, ({ database }) =>
    insertAimSet(database, { ...row, origin, family, name, madeMs }),
  );
}
