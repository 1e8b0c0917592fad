import { deltaE2000 } from '@melto/core/colour/deltaE2000';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzToLab } from '@melto/core/colour/xyzToLab';
import type { Lab } from '@melto/core/colour/lab';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import { gamutFigures } from '@melto/core/gamut/gamutFigures';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { outputProfileFacts } from '@melto/core/profile/outputProfileFacts';
import type { OutputProfileFacts } from '@melto/core/profile/outputProfileFacts';
import { issueText } from '@melto/core/result';
import { listCompleteReadings } from '@melto/store/readings';
import { insertResult, insertResultFile } from '@melto/store/results';
import { domainNow } from '../kernel/clock.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { profileOfFile } from '../kernel/profileFile.ts';
import { conditionOf } from '../ledger/conditions.ts';
import type { ConditionRow } from '../ledger/conditions.ts';
import { profileInForce } from '../ledger/inForce.ts';
import { GIVEN_PROFILE } from '../ledger/kinds/givenProfileKind.ts';
import type { GivenProfileDetail, GivenProfileSummary } from '../ledger/kinds/givenProfileKind.ts';
import { toStore } from '../ledger/resultKind.ts';
import { loadReading } from '../reading/loadReading.ts';
import { compareProfiles } from './profileComparison.ts';

/** Paper and profile differ by no more where one was made for the other, ΔE00. */
const SAME_PAPER = 2;

/** A profile that was given, as it would be stored. */
export type GivenProfile = Omit<GivenProfileSummary, 'origin'> & Omit<GivenProfileDetail, 'compared'>;

export interface ProfileFile {
  readonly fileName: string;
  readonly bytes: Uint8Array;
}

/** What a profile from elsewhere would become as a version of a condition's profile; stores nothing. */
export async function previewProfile(
  context: Context,
  conditionId: number,
  file: ProfileFile,
): Promise<GivenProfile> {
  return (await examined(context, await conditionOf(context, conditionId), file)).given;
}

/** Takes a profile from elsewhere as the next version of a condition's profile, with its origin. */
export async function takeProfile(
  context: Context,
  conditionId: number,
  { origin: words, ...file }: ProfileFile & { readonly origin: string },
): Promise<{ readonly id: number }> {
  const condition = await conditionOf(context, conditionId);
  const origin = words.trim();
  if (origin === '')
    throw new Problem(
      'bad-input',
      'Nobody knows later where this profile is from.',
      'Say who made it, and for what paper and settings.',
      'origin',
    );
  const { profile, given } = await examined(context, condition, file);
  const { name, version, bytes, ramps, outline, warnings, ...rest } = given;
  const madeMs = await domainNow(context);
  const gamut = gamutFigures(profile, given);
  return unitOfWork(context, async (inner) => {
    const before = await profileInForce(inner, conditionId);
    const summary = { name, version, origin, bytes, ramps, outline, warnings, gamut };
    const detail = { ...rest, compared: before === undefined ? undefined : compareProfiles(before, profile) };
    const made = await insertResult(
      inner.database,
      { conditionId, ...toStore(GIVEN_PROFILE, { summary, detail }), verdict: null, madeMs },
      { readings: [], results: [] },
    );
    const stem = file.fileName.replace(/\.(icc|icm)$/i, '');
    await insertResultFile(
      inner.database,
      made.id,
      'profile',
      {
        name: `${stem}_v${made.version}.icc`,
        mediaType: 'application/vnd.iccprofile',
        content: Buffer.from(file.bytes),
      },
      context.now(),
    );
    return { id: made.id };
  });
}

async function examined(
  context: Context,
  condition: ConditionRow,
  { fileName, bytes }: ProfileFile,
): Promise<{ readonly profile: IccProfile; readonly given: GivenProfile }> {
  const profile = profileOfFile(fileName, bytes);
  const facts = outputProfileFacts(profile);
  if (!facts.ok)
    throw new Problem(
      'bad-input',
      `${fileName} cannot be printed through. ${facts.issues.map(issueText).join('; ')}.`,
      'Nothing was stored. Give an output profile with tables both ways.',
    );
  const { value } = facts;
  if (value.colourSpace !== condition.process.name)
    throw new Problem(
      'bad-input',
      `${fileName} is for ${value.colourSpace}; ${condition.device} prints ${condition.process.name}.`,
      'Nothing was stored. Give a profile of its colour space.',
    );
  const { figures } = value;
  return {
    profile,
    given: {
      ...{ fileName, name: value.name === '' ? fileName : value.name, version: value.version },
      ...{ bytes: bytes.length, made: value.made, intents: value.intents, outline: value.outline },
      ramps: value.ramps.map(({ points }) => points.filter((_, i) => i % 4 === 0).map(({ lab }) => lab)),
      ...{ white: figures.white, black: figures.black, cast: figures.cast, greys: figures.greys },
      totalInk: figures.totalInk ?? null,
      fit: figures.fit ?? null,
      warnings: await warningsOf(context, condition, value),
    },
  };
}

/** What speaks against printing through it here. */
async function warningsOf(
  context: Context,
  condition: ConditionRow,
  { figures: { white, cast }, intents }: OutputProfileFacts,
): Promise<string[]> {
  const paper = await measuredPaper(context, condition);
  const off = paper === undefined ? 0 : deltaE2000(paper.lab, white as unknown as Lab);
  return [
    ...(paper !== undefined && off > SAME_PAPER
      ? [
          `Its paper is ${off.toFixed(1)} ΔE00 from the one measured on ${paper.code}: it was made for another paper, or in another mode.`,
        ]
      : []),
    ...(cast > 3 ? [`Its greys are up to ${cast.toFixed(1)} off neutral by its own table.`] : []),
    ...(intents.includes('perceptual') ? [] : ['It has no perceptual table of its own.']),
  ];
}

/** Bare paper as the newest complete reading of the condition has it. */
async function measuredPaper(
  context: Context,
  { id, process }: ConditionRow,
): Promise<{ readonly code: string; readonly lab: Lab } | undefined> {
  const [newest] = await listCompleteReadings(context.database, id, { purposes: ['profile'], limit: 1 });
  if (newest === undefined) return undefined;
  const { set, xyz, print } = await loadReading(context, newest.id);
  const paper = set.device === undefined ? undefined : meanPaperXyz(process, set.device, xyz);
  return paper === undefined ? undefined : { code: print.code, lab: xyzToLab(paper, WHITE_D50_MEASURED) };
}
