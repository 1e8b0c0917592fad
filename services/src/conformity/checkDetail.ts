import { drivenByInks } from '@melto/core/device/process';
import { conditionName } from '../ledger/conditions.ts';
import { judgeSheet, layBesideAims } from '@melto/core/conformity/checkAgainstAims';
import type { AimCheck } from '@melto/core/conformity/checkAgainstAims';
import {
  checkedPatches,
  distributionOf,
  groupFigures,
  storedMetric,
} from '@melto/core/conformity/checkDetail';
import type { CheckDetail } from '@melto/core/conformity/checkDetail';
import { doubtfulLimits } from '@melto/core/conformity/toleranceSet';
import { deviceKey, pairKey } from '@melto/core/conformity/aims';
import { whatDecides } from '@melto/core/conformity/whatDecides';
import type { PatchSet } from '@melto/core/cgats/patchSet';
import { issueText } from '@melto/core/result';
import type { Result } from '@melto/core/result';
import { findResult } from '@melto/store/results';
import { loadAims } from './aimSets.ts';
import { domainNow } from '../kernel/clock.ts';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import type { LoadedReading } from '../reading/loadReading.ts';
import { loadToleranceSet } from './toleranceSets.ts';
import { askedSet, spotReadings, spotRows } from './checkChoice.ts';
import type { CheckChoice, JudgedBy } from './checkChoice.ts';
import { budgetOf, driftOf, OUT_OF_REACH, reachOf } from './checkSources.ts';
import { personName } from '../kernel/person.ts';

/** A check that is computed and not stored: trials, and what is stored in the end. */
export async function checkDetail(
  context: Context,
  loaded: LoadedReading,
  choice: CheckChoice,
  before: JudgedBy | undefined,
): Promise<{ readonly detail: CheckDetail; readonly check: AimCheck }> {
  const [{ view, aims }, { set: tolerances, id, version, shipped }] = await Promise.all([
    loadAims(context, choice.aimSetId),
    loadToleranceSet(context, choice.toleranceSetId),
  ]);
  const set = askedSet(loaded);
  const sheet = judgeable(layBesideAims(set, aims, spotReadings(loaded)));
  const check = judgeable(judgeSheet(sheet, tolerances, choice.substrateCorrected, choice.spotsMoved));
  const corrected = choice.substrateCorrected ? undefined : judgeSheet(sheet, tolerances, true);
  const decided = whatDecides(
    check.pairs,
    check,
    tolerances,
    corrected?.ok === true ? corrected.value : undefined,
  );
  const pairOfRow = pairsOfRows(loaded, set, check);
  const nameOf = (pair: number): string => {
    const i = pairOfRow.indexOf(pair);
    return loaded.set.names?.[i] ?? loaded.set.ids[i] ?? '';
  };
  const rowToPair = new Map(loaded.rows.map((row, i) => [row, pairOfRow[i]]));
  const patches = checkedPatches(check, nameOf);
  const reach = await reachOf(context, loaded, pairOfRow, check, before);
  const distribution = distributionOf(patches);
  const { reading, print, condition, chart } = loaded;
  const same =
    before !== undefined &&
    before.aimSetId === choice.aimSetId &&
    before.toleranceSetId === choice.toleranceSetId &&
    before.substrateCorrected === choice.substrateCorrected &&
    (before.spotsMoved ?? false) === (choice.spotsMoved ?? false);
  const detail: CheckDetail = {
    kind: 'aims',
    header: {
      condition: conditionName(condition),
      sheet: print.code,
      chart: chart.title,
      instrument: reading.instrument ?? 'from a file',
      person: await personName(context),
      madeMs: await domainNow(context),
      printedMs: print.printedMs,
      readMs: reading.finishedMs ?? reading.startedMs,
      early: reading.early,
      measured: { ...loaded.set.conditions, illuminant: 'D50', observer: '2' },
      aims: {
        id: view.id,
        name: view.name,
        version: view.version,
        origin: view.origin,
        ...(view.moved === null ? {} : { movedFrom: view.moved.fromName }),
        conditions: view.conditions,
      },
      tolerances: {
        id,
        name: tolerances.name,
        version,
        source: tolerances.source,
        own: !shipped,
        notJudged: tolerances.notJudged ?? [],
        doubts: doubtfulLimits(tolerances),
      },
      through: await throughWords(context, loaded, before),
      chosen: same ? 'before the reading' : 'after the reading',
      ...(same && before.predicted !== undefined ? { predicted: before.predicted } : {}),
    },
    verdict: check.verdict,
    ...{ substrateCorrected: check.substrateCorrected, spotsMoved: check.spotsMoved },
    otherwise: check.otherwise,
    withoutAim: check.withoutAim,
    metrics: check.metrics.map(storedMetric),
    patches,
    distribution,
    groups: groupFigures(patches),
    white: check.white ?? null,
    decides: {
      ...decided,
      deciding: decided.deciding.map(({ metric, rows }) => ({ metric: check.metrics.indexOf(metric), rows })),
      outOfReach: [...(reach?.keys() ?? [])].filter((pair) => (reach?.[pair] ?? 0) > OUT_OF_REACH),
      drift: check.verdict === 'does-not-conform' ? await driftOf(context, loaded, check, tolerances) : null,
    },
    budget: (await budgetOf(context, loaded, distribution.mean, reach)) ?? null,
    sheet: chart.layout.pages.map((strips) =>
      strips.map((rows) => rows.map((row) => rowToPair.get(row) ?? -1)),
    ),
  };
  return { detail, check };
}

/** What was found, or why it cannot be judged. */
function judgeable<T>(result: Result<T>): T {
  if (result.ok) return result.value;
  throw new Problem(
    'bad-input',
    `It cannot be judged: ${result.issues.map(issueText).join('; ')}.`,
    'Choose other aims, or print a control wedge.',
    'aimSetId',
  );
}

/** The pair that each row of a reading went into; −1 where it has no aim. */
function pairsOfRows(loaded: LoadedReading, asked: PatchSet, { pairs }: AimCheck): readonly number[] {
  const byKey = new Map(pairs.map((pair, index) => [pairKey(pair), index]));
  const device = asked.device ?? new Float64Array(0);
  let next = 0;
  return spotRows(loaded).map((spot) => {
    const key = spot === undefined ? deviceKey(device, next++) : pairKey({ spot: spot.name, device });
    return byKey.get(key) ?? -1;
  });
}

/** The way of the values to the device, in words. */
async function throughWords(
  context: Context,
  { print, condition }: LoadedReading,
  before: JudgedBy | undefined,
): Promise<string> {
  const words: string[] = [];
  const profile =
    print.profileResultId === null ? undefined : await findResult(context.database, print.profileResultId);
  if (profile !== undefined)
    words.push(
      `profile v${profile.version}${before === undefined ? '' : `, ${before.through.replace('profile, ', '')} colorimetric`}`,
    );
  const curves =
    print.curvesResultId === null ? undefined : await findResult(context.database, print.curvesResultId);
  if (curves !== undefined) words.push(`${curves.link} v${curves.version}`);
  if (words.length === 0)
    return drivenByInks(condition.process) ? 'device values, without curves' : 'device values';
  return profile === undefined ? `device values, ${words.join(', ')}` : words.join(', ');
}
