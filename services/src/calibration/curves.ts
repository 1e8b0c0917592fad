import { isDeepStrictEqual } from 'node:util';
import { channelNames } from '@melto/core/device/process';
import type { Process } from '@melto/core/device/process';
import { inputTotalOf } from '@melto/core/limits/totalInk';
import { curvesFromCsv } from '@melto/core/curveFiles/curvesFromCsv';
import { issueText } from '@melto/core/result';
import { inkRamps } from '@melto/core/tone/inkRamps';
import { linearise } from '@melto/core/tone/linearise';
import type { InkLinearisation } from '@melto/core/tone/linearise';
import { nativeResponse } from '@melto/core/tone/nativeResponse';
import type { ToneMeasure } from '@melto/core/tone/toneMeasure';
import { measuresFor } from '@melto/core/tone/toneMeasure';
import { tviAim, tviAimOfPoints } from '@melto/core/tone/tviAim';
import type { TviAim } from '@melto/core/tone/tviAim';
import type { ToneCurves } from '@melto/core/tone/toneCurve';
import { lockCondition } from '@melto/store/conditions';
import { findHead, findResult, insertResult } from '@melto/store/results';
import { domainNow } from '../kernel/clock.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { conditionOf } from '../ledger/conditions.ts';
import type { ConditionRow } from '../ledger/conditions.ts';
import { identityCurves } from '../ledger/inForce.ts';
import { CURVES, keptToCurves, roundCurves } from '../ledger/kinds/curvesKind.ts';
import type { CurvesDetail, CurvesSummary, InkRound, TviChoice } from '../ledger/kinds/curvesKind.ts';
import { LIMITS } from '../ledger/kinds/limitsKind.ts';
import { summaryOf, toStore } from '../ledger/resultKind.ts';
import type { Stored } from '../ledger/resultKind.ts';
import { storedHead } from '../ledger/storedResult.ts';
import { pressReading } from './pressReading.ts';
import type { PressReading } from './pressReading.ts';
import { fullDensities, printedRamps } from './printedRamps.ts';
import { solidColours } from './solidColours.ts';

export interface CurvesChoices {
  readonly readingId: number;
  readonly measure: ToneMeasure;
  readonly tvi?: TviChoice;
}

export function roundOf({ ink, steps, wrong, noise, largest, mean }: InkLinearisation): InkRound {
  return { ink, steps, wrong, noise, largest, mean };
}

/** Every step within this of its aim, as a tone value, counts as reached. */
export const CURVES_LIMIT = 0.015;

function aimsOf(
  { channels }: Process,
  measure: ToneMeasure,
  tvi: TviChoice | undefined,
): TviAim[] | undefined {
  if (measure !== 'tvi') return undefined;
  if (!measuresFor(channels.map(({ name }) => name)).includes(measure))
    throw new Problem(
      'bad-input',
      `TVI aims are agreed for C, M, Y and K, not for ${channels.map(({ name }) => name).join(', ')}.`,
      'Make the inks even by SCTV (ISO 20654), which is for any ink.',
      'measure',
    );
  if (tvi === undefined)
    throw new Problem('bad-input', 'A TVI aim is missing.', 'Choose A to E or own points.', 'tvi');
  if ('inks' in tvi) return tvi.inks.map(tviAimOfPoints);
  if ('letter' in tvi) return channels.map(() => tviAim(tvi.letter));
  if (tvi.points.some(({ tone, increase }) => !(tone > 0 && tone < 1 && increase >= -0.2 && increase <= 0.5)))
    throw new Problem('bad-input', 'Points lie between 0 and 100 %.', 'Change them and try again.', 'tvi');
  const aim = tviAimOfPoints(tvi.points);
  return channels.map(() => aim);
}

/** Limits in force when curves are made: device values by channel, total at the device where one is set. */
interface LimitsToKeep {
  readonly id: number | null;
  readonly limits: readonly number[];
  readonly total: number | null;
}

async function limitsOf(
  { database }: Context,
  { id: conditionId, process }: ConditionRow,
): Promise<LimitsToKeep> {
  const head = await findHead(database, conditionId, 'limits');
  if (head === undefined) return { id: null, limits: process.channels.map(() => 1), total: null };
  const { limits, total } = summaryOf(LIMITS, head);
  return { id: head.id, limits, total };
}

/** One round of curves from a reading of ramps, as a new version. */
export async function makeCurves(
  context: Context,
  conditionId: number,
  choices: CurvesChoices,
): Promise<{ readonly id: number }> {
  const condition = await conditionOf(context, conditionId);
  const limits = await limitsOf(context, condition);
  const { summary, detail } = await workCurves(context, conditionId, choices, limits);
  const sources = limits.id === null ? [] : [limits.id];
  return store(context, conditionId, summary, detail, [choices.readingId], sources);
}

/** One round of curves from a reading of ramps, under the limits given; nothing is stored. */
export async function workCurves(
  context: Context,
  conditionId: number,
  choices: CurvesChoices,
  { limits, total }: Pick<LimitsToKeep, 'limits' | 'total'>,
): Promise<Stored<CurvesSummary, CurvesDetail>> {
  const reading = await pressReading(context, conditionId, choices.readingId, 'ramps');
  const { measure, tvi } = choices;
  const inks = lineariseReading(reading, limits, choices);
  const curves = inks.map(({ next }) => next);
  const before = reading.print.curvesResultId;
  const earlier = before === null ? undefined : await findResult(context.database, before);
  const round = earlier?.shape === CURVES.shape ? summaryOf(CURVES, earlier).round + 1 : 1;
  const summary: CurvesSummary = {
    round,
    measure,
    tvi: tvi ?? null,
    largest: Math.max(...inks.map(({ largest }) => largest)),
    mean: inks.reduce((sum, ink) => sum + ink.mean, 0) / inks.length,
    dmax: fullDensities(reading),
    ramps: printedRamps(reading),
    code: reading.print.code,
    imported: null,
    total:
      total === null
        ? null
        : { device: total, input: inputTotalOf(total, curves, reading.condition.process) },
  };
  const detail: CurvesDetail = {
    curves: roundCurves(curves),
    native: roundCurves(
      nativeResponse(reading.condition.process, reading.device, reading.xyz, reading.present),
    ),
    inks: inks.map(roundOf),
    colours: solidColours(reading),
    presentResultId: before,
    limits,
  };
  return { summary, detail };
}

export function lineariseReading(
  reading: PressReading,
  limits: readonly number[],
  choices: Pick<CurvesChoices, 'measure' | 'tvi'>,
): InkLinearisation[] {
  const { process } = reading.condition;
  const ramps = inkRamps(process, reading.device, reading.xyz, reading.densities);
  if (ramps.length < process.channels.length)
    throw new Problem('bad-input', 'The reading lacks a ramp.', 'Read a ramps chart.', 'readingId');
  return linearise({
    ramps,
    paper: reading.paper,
    present: reading.present,
    limits,
    measure: choices.measure,
    tviAims: aimsOf(process, choices.measure, choices.tvi),
  });
}

/** Curves from a CSV file, as a new version; channels that the file lacks stay as they are. */
export async function importCurves(
  context: Context,
  conditionId: number,
  name: string,
  text: string,
): Promise<{ readonly id: number }> {
  const condition = await conditionOf(context, conditionId);
  const names = channelNames(condition.process);
  const parsed = curvesFromCsv(text);
  if (!parsed.ok)
    throw new Problem(
      'bad-input',
      `The file cannot be used: ${parsed.issues.map(issueText).join('; ')}.`,
      'Nothing was stored. Mend the file and give it again.',
    );
  const before = (await storedHead(context, conditionId, CURVES))?.detail;
  const old: ToneCurves =
    before === undefined ? identityCurves(condition.process) : keptToCurves(before.curves);
  const known = names.filter((ink) => parsed.value.curves.has(ink));
  if (known.length === 0)
    throw new Problem(
      'bad-input',
      `The file has no curve of ${names.join(', ')}; it names ${[...parsed.value.curves.keys()].join(', ').slice(0, 80)}.`,
      `Nothing was stored. Name the columns ${names.join(', ')}.`,
    );
  const curves = names.map((ink, i) => parsed.value.curves.get(ink) ?? old[i]);
  const { limits, total } = await limitsOf(context, condition);
  const summary: CurvesSummary = {
    ...{ round: 1, measure: 'sctv', tvi: null, largest: 0, mean: 0, dmax: [], ramps: [], code: '' },
    imported: name.slice(0, 120),
    total: total === null ? null : { device: total, input: inputTotalOf(total, curves, condition.process) },
  };
  const detail: CurvesDetail = {
    curves: roundCurves(curves),
    native: before?.native,
    inks: [],
    colours: before?.colours ?? [],
    presentResultId: null,
    limits,
  };
  return store(context, conditionId, summary, detail, [], []);
}

async function store(
  context: Context,
  conditionId: number,
  summary: CurvesSummary,
  detail: CurvesDetail,
  readings: readonly number[],
  results: readonly number[],
): Promise<{ readonly id: number }> {
  const madeMs = await domainNow(context);
  return unitOfWork(context, async (inner) => {
    await lockCondition(inner.database, conditionId);
    await requireNew(inner, conditionId, summary, detail);
    return insertResult(
      inner.database,
      { conditionId, ...toStore(CURVES, { summary, detail }), verdict: null, madeMs },
      { readings, results },
    );
  });
}

/** A page that was opened earlier makes no second version of what its sheet has made already. */
async function requireNew(
  context: Context,
  conditionId: number,
  { code, imported }: CurvesSummary,
  { curves, presentResultId }: CurvesDetail,
): Promise<void> {
  const head = await storedHead(context, conditionId, CURVES);
  const same =
    head !== undefined &&
    head.summary.code === code &&
    head.summary.imported === imported &&
    head.detail.presentResultId === presentResultId &&
    isDeepStrictEqual(head.detail.curves, curves);
  if (!same) return;
  throw new Problem(
    'conflict',
    `Curves v${head.row.version} are these curves already, made of ${imported ?? code}.`,
    'Print through them, or choose other aims or another sheet.',
    'readingId',
  );
}
