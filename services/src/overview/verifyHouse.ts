import { keptFigures } from '@melto/core/watch/watchFigures';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { findResultFile, listResultsAfter } from '@melto/store/results';
import type { WholeResultRow } from '@melto/store/results';
import { balanceAgain, curvesAgain, evennessAgain, limitsAgain } from '../calibration/calibrationAgain.ts';
import { judgedByOf } from '../conformity/checkChoice.ts';
import { checkDetail } from '../conformity/checkDetail.ts';
import { shortCheckOf } from '../conformity/shortChecks.ts';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { AIM_CHECK } from '../ledger/kinds/aimCheckKind.ts';
import { BALANCE } from '../ledger/kinds/balanceKind.ts';
import { CURVES } from '../ledger/kinds/curvesKind.ts';
import { EVENNESS } from '../ledger/kinds/evennessKind.ts';
import { GIVEN_PROFILE } from '../ledger/kinds/givenProfileKind.ts';
import { LIMITS } from '../ledger/kinds/limitsKind.ts';
import { PROFILE } from '../ledger/kinds/profileKind.ts';
import { SHORT_CHECK } from '../ledger/kinds/shortCheckKind.ts';
import { WATCH } from '../ledger/kinds/watchKind.ts';
import { partThatDiffers } from '../ledger/partThatDiffers.ts';
import { storedOf } from '../ledger/resultKind.ts';
import { sourceReading } from '../ledger/sourceReading.ts';
import { pooledReadings } from '../profile/pooledReadings.ts';
import { workProfile } from '../profile/workProfile.ts';
import { loadReading } from '../reading/loadReading.ts';
import { workZero } from '../watch/watch.ts';
import { workRunZero } from '../press/runWatch.ts';

/** What came of computing a result again. */
export interface Verified {
  readonly id: number;
  /** As people call it. */
  readonly what: string;
  readonly outcome: 'equal' | 'differs' | 'not computed again';
  /** Why it is not equal; empty where it is. */
  readonly why: string;
}

const BLOCK = 20;

/**
 * Computes the results of a house again from their readings and what was chosen: profiles to the byte, checks to the last
 * digit, limits, curves, balance, evenness and zero readings likewise. What came from a file of somebody else's follows from
 * no reading, and is said to be so.
 */
export async function verifyHouse(
  context: Context,
  onResult: (result: Verified) => void = () => {},
  /** Shapes that are computed again; all where none are told. */
  shapes?: readonly string[],
): Promise<readonly Verified[]> {
  const out: Verified[] = [];
  for (let after = 0; ;) {
    const rows = await listResultsAfter(context.database, after, BLOCK);
    for (const row of rows) {
      if (shapes !== undefined && !shapes.includes(row.shape)) continue;
      const result = await verified(context, row);
      out.push(result);
      onResult(result);
    }
    if (rows.length < BLOCK) return out;
    after = rows[rows.length - 1].id;
  }
}

async function verified(context: Context, row: WholeResultRow): Promise<Verified> {
  const what = `${row.shape.replaceAll('-', ' ')}, version ${row.version} of condition ${row.conditionId}`;
  const said = (outcome: Verified['outcome'], why = ''): Verified => ({ id: row.id, what, outcome, why });
  const again = AGAIN[row.shape];
  if (again === undefined)
    return said(
      'not computed again',
      row.shape === GIVEN_PROFILE.shape ? 'it is from elsewhere' : 'its kind follows from no reading',
    );
  try {
    const why = await again(context, row);
    return why === undefined ? said('equal') : said('differs', why);
  } catch (error) {
    // A reading that was withdrawn, aims that are gone: it is said, and the next one is looked at.
    if (error instanceof Problem) return said('not computed again', error.title);
    // What is stored cannot even be read: it is not what was stored.
    return said('differs', error instanceof Error ? error.message : String(error));
  }
}

/** For each shape that follows from readings: why it does not come out the same; undefined where it does. */
const AGAIN: Readonly<
  Record<string, ((context: Context, row: WholeResultRow) => Promise<string | undefined>) | undefined>
> = {
  [PROFILE.shape]: profileAgain,
  [AIM_CHECK.shape]: checkAgain,
  [SHORT_CHECK.shape]: shortCheckAgain,
  [LIMITS.shape]: limitsAgain,
  [CURVES.shape]: curvesAgain,
  [BALANCE.shape]: balanceAgain,
  [EVENNESS.shape]: evennessAgain,
  [WATCH.shape]: watchAgain,
};

async function watchAgain(context: Context, row: WholeResultRow): Promise<string | undefined> {
  const { detail } = storedOf(WATCH, row, row.detail);
  const { conditionId } = row;
  const figures =
    detail.runs === undefined
      ? await workZero(context, conditionId, detail.readings)
      : await workRunZero(context, conditionId, detail.runs.ids);
  const zero = keptFigures(figures);
  return partThatDiffers(['zero'], detail, { ...detail, zero });
}

async function profileAgain(context: Context, row: WholeResultRow): Promise<string | undefined> {
  const { summary, detail } = storedOf(PROFILE, row, row.detail);
  const file = await findResultFile(context.database, row.id, 'profile');
  if (file === undefined) return 'its file is missing';
  const { readingId, addedReadingIds, light } = detail.choices;
  const pooled = await pooledReadings(context, readingId, addedReadingIds, light);
  const named = { name: summary.name, madeMs: row.madeMs };
  const { profile } = await workProfile(context, pooled, detail.choices, named, () => {});
  const bytes = writeIcc(profile);
  if (bytes.length !== file.content.length)
    return `its file has ${file.content.length} bytes, computed again ${bytes.length}`;
  const first = bytes.findIndex((byte, i) => byte !== file.content[i]);
  return first < 0 ? undefined : `its file differs from byte ${first} on`;
}

async function checkAgain(context: Context, row: WholeResultRow): Promise<string | undefined> {
  const { detail } = storedOf(AIM_CHECK, row, row.detail);
  const loaded = await readingOf(context, row.id);
  const { header, substrateCorrected, spotsMoved } = detail;
  const choice = {
    ...{ aimSetId: header.aims.id, toleranceSetId: header.tolerances.id },
    ...{ substrateCorrected, spotsMoved },
  };
  const again = await checkDetail(context, loaded, choice, judgedByOf(loaded));
  // Names and times are of their day, and an earlier check that would pass is found among those of its day.
  return partThatDiffers(
    ['verdict', 'metrics', 'patches', 'distribution', 'groups', 'white'],
    detail,
    again.detail,
  );
}

async function shortCheckAgain(context: Context, row: WholeResultRow): Promise<string | undefined> {
  const { detail } = storedOf(SHORT_CHECK, row, row.detail);
  const { check } = await shortCheckOf(context, await readingOf(context, row.id));
  return partThatDiffers(Object.keys(detail.check) as (keyof typeof check)[], detail.check, check);
}

async function readingOf(context: Context, resultId: number) {
  return loadReading(context, await sourceReading(context, resultId));
}
