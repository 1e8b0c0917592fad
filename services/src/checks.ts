import { repeatability } from '@melto/core/characterise/repeatability';
import { checkAgainstAims } from '@melto/core/conformity/checkAgainstAims';
import type { AimCheck } from '@melto/core/conformity/checkAgainstAims';
import {
  checkedPatches,
  distributionOf,
  groupFigures,
  storedMetric,
} from '@melto/core/conformity/checkDetail';
import type { CheckDetail } from '@melto/core/conformity/checkDetail';
import { deviceKey } from '@melto/core/conformity/aims';
import { errorBudget } from '@melto/core/conformity/errorBudget';
import type { ErrorBudget } from '@melto/core/conformity/errorBudget';
import { judgeColours } from '@melto/core/conformity/judgeColours';
import { whatDecides } from '@melto/core/conformity/whatDecides';
import { channelCount } from '@melto/core/device/deviceSpace';
import { deltaE2000 } from '@melto/core/colour/deltaE2000';
import { mean } from '@melto/core/numerics/statistics';
import { issueText } from '@melto/core/result';
import type { PatchSet } from '@melto/core/cgats/patchSet';
import { deviceToLab } from '@melto/core/icc/profileTransform';
import { readIcc } from '@melto/core/icc/readIcc';
import { findResult, findResultFile, insertResult, listResults } from '@melto/store/results';
import { loadAims, nominalValues } from './aimSets.ts';
import { domainNow } from './clock.ts';
import { LOCAL_PERSON } from './context.ts';
import type { Services } from './context.ts';
import { Problem } from './problem.ts';
import { completeReading, loadReading } from './readings.ts';
import type { LoadedReading } from './readings.ts';
import type { ProfileSummary } from './profiles.ts';
import { loadToleranceSet } from './toleranceSets.ts';
import { driftSinceZero } from './watchDrift.ts';

/** What a reading is judged by. */
export interface CheckChoice {
  readonly aimSetId: number;
  readonly toleranceSetId: number;
  readonly substrateCorrected: boolean;
}

/** As a print keeps it: with the way the wedge took to the device. */
export interface JudgedBy extends CheckChoice {
  readonly through: 'profile, absolute' | 'profile, relative' | 'device values';
}

export interface AimCheckSummary {
  readonly kind: 'aims';
  /** The metric nearest to its limit, or farthest over it. */
  readonly value: number;
  readonly limit: number;
  readonly name: string;
  readonly mean: number;
  readonly corrected: boolean;
  readonly tolerances: string;
  readonly aims: string;
  readonly code: string;
}

/** Judges a reading by what was chosen when its wedge was printed, or anew. */
export async function judgeReading(
  services: Services,
  readingId: number,
  choice?: CheckChoice,
): Promise<{ readonly id: number }> {
  const loaded = await loadReading(services, readingId);
  if (loaded.reading.finishedMs === null)
    throw new Problem('not-ready', 'The reading is not complete.', 'Read the strips that are missing first.');
  if (loaded.reading.withdrawnMs !== null)
    throw new Problem(
      'conflict',
      'This reading was withdrawn.',
      'Take it back, or choose another.',
      'readingId',
    );
  const before = judgedByOf(loaded);
  const chosen = choice ?? before;
  if (chosen === undefined)
    throw new Problem(
      'bad-input',
      'This print was made for no aims.',
      'Choose aims and tolerances.',
      'aimSetId',
    );
  const { detail, check } = await checkDetail(services, loaded, chosen, before);
  const nearest = [...detail.metrics].sort((a, b) => (b.value ?? 0) / b.limit - (a.value ?? 0) / a.limit)[0];
  const summary: AimCheckSummary = {
    kind: 'aims',
    value: nearest?.value ?? 0,
    limit: nearest?.limit ?? 0,
    name: nearest === undefined ? '' : `${nearest.group} ${nearest.statistic} ${nearest.quantity}`,
    mean: detail.distribution.mean,
    corrected: chosen.substrateCorrected,
    tolerances: detail.header.tolerances.name,
    aims: detail.header.aims.name,
    code: loaded.print.code,
  };
  const sources = [loaded.print.profileResultId, loaded.print.curvesResultId].filter((id) => id !== null);
  return services.database.transaction(async (sql) => {
    const { id } = await insertResult(
      sql,
      {
        conditionId: loaded.print.conditionId,
        link: 'conformity',
        verdict: check.verdict,
        summary,
        detail,
        madeMs: detail.header.madeMs,
      },
      { readings: [readingId], results: sources },
      LOCAL_PERSON,
    );
    return { id };
  });
}

/** The same for a reading of a certain condition. */
export async function judgeReadingOf(
  services: Services,
  conditionId: number,
  readingId: number,
  choice: CheckChoice,
): Promise<{ readonly id: number }> {
  await completeReading(services, conditionId, readingId);
  return judgeReading(services, readingId, choice);
}

export function judgedByOf({ print }: Pick<LoadedReading, 'print'>): JudgedBy | undefined {
  return print.judgedBy === null ? undefined : (JSON.parse(print.judgedBy) as JudgedBy);
}

/** A reading with the CMYK values that its chart asks for in place of those that went to the device. */
export function askedSet({ set, chart, rows }: LoadedReading): PatchSet {
  const device = nominalValues(chart.set.device, chart.set.space, rows);
  if (device === undefined)
    throw new Problem(
      'bad-input',
      `${chart.title} does not ask for CMYK values.`,
      'Judge a control wedge or a CMYK chart.',
      'readingId',
    );
  return { ...set, space: 'cmyk', device };
}

/** A check that is computed and not stored: trials, and what is stored in the end. */
export async function checkDetail(
  services: Services,
  loaded: LoadedReading,
  choice: CheckChoice,
  before: JudgedBy | undefined,
): Promise<{ readonly detail: CheckDetail; readonly check: AimCheck }> {
  const [{ view, aims }, { set: tolerances, id, version }] = await Promise.all([
    loadAims(services, choice.aimSetId),
    loadToleranceSet(services, choice.toleranceSetId),
  ]);
  const set = askedSet(loaded);
  const judge = (corrected: boolean): AimCheck | undefined => {
    const result = checkAgainstAims(set, aims, tolerances, corrected);
    if (result.ok) return result.value;
    if (corrected === choice.substrateCorrected)
      throw new Problem(
        'bad-input',
        `It cannot be judged: ${result.issues.map(issueText).join('; ')}.`,
        'Choose other aims, or print a control wedge.',
        'aimSetId',
      );
    return undefined;
  };
  const check = judge(choice.substrateCorrected);
  if (check === undefined) throw new Error('unreachable');
  const corrected = choice.substrateCorrected ? undefined : judge(true);
  const decided = whatDecides(check.pairs, check, tolerances, corrected);
  const device = set.device ?? new Float64Array(0);
  const pairOf = new Map(check.pairs.map((pair, index) => [deviceKey(pair.device, 0), index]));
  const pairOfRow = loaded.rows.map((_, i) => pairOf.get(deviceKey(device, i)) ?? -1);
  const nameOf = (pair: number): string => {
    const i = pairOfRow.indexOf(pair);
    return set.names?.[i] ?? set.ids[i] ?? '';
  };
  const rowToPair = new Map(loaded.rows.map((row, i) => [row, pairOfRow[i]]));
  const patches = checkedPatches(check, nameOf);
  const reach = await reachOf(services, loaded, pairOfRow, check, before);
  const distribution = distributionOf(check.deltaE);
  const { reading, print, condition, chart } = loaded;
  const same =
    before !== undefined &&
    before.aimSetId === choice.aimSetId &&
    before.toleranceSetId === choice.toleranceSetId &&
    before.substrateCorrected === choice.substrateCorrected;
  const detail: CheckDetail = {
    kind: 'aims',
    header: {
      condition: `${condition.device} / ${condition.stock} / ${condition.mode}`,
      sheet: print.code,
      chart: chart.title,
      instrument: reading.instrument ?? 'from a file',
      person: 'Ines Marlow',
      madeMs: await domainNow(services),
      printedMs: print.printedMs,
      readMs: reading.finishedMs ?? reading.startedMs,
      early: reading.early,
      measured: { ...loaded.set.conditions, illuminant: 'D50', observer: '2' },
      aims: {
        id: view.id,
        name: view.name,
        version: view.version,
        origin: view.origin,
        conditions: view.conditions,
      },
      tolerances: {
        id,
        name: tolerances.name,
        version,
        source: tolerances.source,
        notJudged: tolerances.notJudged ?? [],
      },
      through: await throughWords(services, loaded, before),
      chosen: same ? 'before the reading' : 'after the reading',
    },
    verdict: check.verdict,
    substrateCorrected: check.substrateCorrected,
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
      drift:
        check.verdict === 'does-not-conform'
          ? await driftOf(services, loaded, check, choice.toleranceSetId)
          : null,
    },
    budget: (await budgetOf(services, loaded, distribution.mean, reach)) ?? null,
    sheet: chart.layout.pages.map((strips) =>
      strips.map((rows) => rows.map((row) => rowToPair.get(row) ?? -1)),
    ),
  };
  return { detail, check };
}

/** An aim counts as out of reach where the profile's own prediction is farther from it, ΔE00. */
const OUT_OF_REACH = 1;

/** ΔE00 between each aim and what the profile predicts for the values that were sent; for absolute prints only. */
async function reachOf(
  services: Services,
  { print, set }: LoadedReading,
  pairOfRow: readonly number[],
  check: AimCheck,
  before: JudgedBy | undefined,
): Promise<readonly number[] | undefined> {
  if (print.profileResultId === null || before?.through !== 'profile, absolute' || set.device === undefined)
    return undefined;
  const file = await findResultFile(services.database, print.profileResultId, 'profile');
  const profile = file === undefined ? undefined : readIcc(file.content);
  const toLab = profile?.ok === true ? deviceToLab(profile.value, 'absolute') : undefined;
  if (toLab?.ok !== true) return undefined;
  const predicted = new Float64Array(pairOfRow.length * 3);
  toLab.value.apply(set.device, predicted);
  return check.pairs.map((pair, index) => {
    const row = pairOfRow.indexOf(index);
    return deltaE2000(pair.aim, [predicted[3 * row], predicted[3 * row + 1], predicted[3 * row + 2]]);
  });
}

async function throughWords(
  services: Services,
  { print, condition }: LoadedReading,
  before: JudgedBy | undefined,
): Promise<string> {
  const words: string[] = [];
  const profile =
    print.profileResultId === null ? undefined : await findResult(services.database, print.profileResultId);
  if (profile !== undefined)
    words.push(
      `profile v${profile.version}${before === undefined ? '' : `, ${before.through.replace('profile, ', '')} colorimetric`}`,
    );
  const curves =
    print.curvesResultId === null ? undefined : await findResult(services.database, print.curvesResultId);
  if (curves !== undefined) words.push(`${curves.link} v${curves.version}`);
  if (words.length === 0)
    return condition.space === 'rgb' ? 'device values' : 'device values, without curves';
  return profile === undefined ? `device values, ${words.join(', ')}` : words.join(', ');
}

/** Earlier checks that are looked at for colours that would pass. */
const EARLIER = 5;

/** An earlier check of this condition against the same aims whose colours would pass the tolerances of now. */
async function driftOf(
  services: Services,
  { print }: LoadedReading,
  check: AimCheck,
  toleranceSetId: number,
): Promise<CheckDetail['decides']['drift']> {
  const [{ set: tolerances }, results] = await Promise.all([
    loadToleranceSet(services, toleranceSetId),
    listResults(services.database, print.conditionId),
  ]);
  const earlier = results
    .filter(({ link, summary }) => link === 'conformity' && summary.includes('"kind":"aims"'))
    .slice(0, EARLIER);
  for (const row of earlier) {
    const full = await findResult(services.database, row.id);
    const detail = full === undefined ? undefined : (JSON.parse(full.detail) as CheckDetail);
    if (detail === undefined) continue;
    const measured = new Map(
      detail.patches.map((patch) => [
        deviceKey(
          patch.device.map((v) => v / 100),
          0,
        ),
        patch.measured,
      ]),
    );
    const pairs = check.pairs.map((pair) => ({ ...pair, measured: measured.get(deviceKey(pair.device, 0)) }));
    const complete = pairs.flatMap((pair) =>
      pair.measured === undefined ? [] : [{ ...pair, measured: pair.measured }],
    );
    if (
      complete.length < check.pairs.length ||
      judgeColours(complete, tolerances).verdict === 'does-not-conform'
    )
      continue;
    return {
      version: row.version,
      madeMs: row.madeMs,
      mean: mean(complete.map(({ measured: then }, i) => deltaE2000(then, check.pairs[i].measured))),
    };
  }
  return null;
}

/** How much of the mean difference comes from instrument, sheet, drift and model, as far as it is known. */
async function budgetOf(
  services: Services,
  { set, xyz, print, condition }: LoadedReading,
  total: number,
  reach: readonly number[] | undefined,
): Promise<ErrorBudget | undefined> {
  const device = set.device;
  const repeats =
    device === undefined ? undefined : repeatability(device, channelCount(condition.space), xyz);
  const drift = await driftSinceZero(services, print.conditionId, print.printedMs);
  const profile =
    print.profileResultId === null ? undefined : await findResult(services.database, print.profileResultId);
  const model = profile === undefined ? undefined : (JSON.parse(profile.summary) as ProfileSummary);
  return errorBudget(total, {
    instrument:
      repeats === undefined ? undefined : { size: repeats.mean, from: 'repeated patches of this sheet' },
    sheet:
      drift?.sheet === undefined
        ? undefined
        : { size: drift.sheet, from: 'scatter of the watch from sheet to sheet' },
    drift: drift === undefined ? undefined : { size: drift.size, from: 'the watch since its zero reading' },
    gamut:
      reach === undefined ? undefined : { size: mean(reach), from: 'aims beyond what the profile reaches' },
    model:
      model === undefined
        ? undefined
        : { size: model.mean, from: `fit of profile v${profile?.version ?? ''}` },
  });
}
