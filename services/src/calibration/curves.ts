import { inputTotalOf } from '@melto/core/limits/totalInk';
import { curvesFromCsv } from '@melto/core/curveFiles/curvesFromCsv';
import { issueText } from '@melto/core/result';
import { inkRamps } from '@melto/core/tone/inkRamps';
import { linearise } from '@melto/core/tone/linearise';
import type { InkLinearisation } from '@melto/core/tone/linearise';
import { nativeResponse } from '@melto/core/tone/nativeResponse';
import { PROCESS_INKS } from '@melto/core/tone/toneMeasure';
import type { ToneMeasure } from '@melto/core/tone/toneMeasure';
import { tviAim, tviAimOfPoints } from '@melto/core/tone/tviAim';
import type { TviAim, TviLetter } from '@melto/core/tone/tviAim';
import type { ToneCurves } from '@melto/core/tone/toneCurve';
import { findResult, insertResult, listHeads } from '@melto/store/results';
import { domainNow } from '../kernel/clock.ts';
import { conditionOf } from '../ledger/conditions.ts';
import { LOCAL_PERSON } from '../kernel/context.ts';
import type { Services } from '../kernel/context.ts';
import { identityCurves, roundCurves } from '../ledger/curvesInForce.ts';
import type { KeptCurves } from '../ledger/curvesInForce.ts';
import type { LimitsSummary } from './limits.ts';
import { pressReading } from './pressReading.ts';
import type { PressReading } from './pressReading.ts';
import { Problem } from '../kernel/problem.ts';
import { solidColours } from './solidColours.ts';

/** An aim of TVI for all inks: a letter, or own points (tone and increase, 0..1). */
export type TviChoice =
  | { readonly letter: TviLetter }
  | { readonly points: readonly { readonly tone: number; readonly increase: number }[] };

export interface CurvesChoices {
  readonly readingId: number;
  readonly measure: ToneMeasure;
  readonly tvi?: TviChoice;
}

export interface CurvesSummary {
  readonly round: number;
  readonly measure: ToneMeasure;
  readonly tvi: TviChoice | null;
  /** Departure of the sheet it was made from, before the correction, tone values 0..1. */
  readonly largest: number;
  readonly mean: number;
  readonly dmax: readonly number[];
  /** Printed ramps C, M, Y, K from paper to solid, Lab, nine steps each. */
  readonly ramps: readonly (readonly (readonly number[])[])[];
  readonly code: string;
  /** Name of the file the curves came from. */
  readonly imported: string | null;
  /** Total ink at the device and at the input of the curves, where a limit is set. */
  readonly total: { readonly device: number; readonly input: number } | null;
}

/** One ink of a round, without its curve. */
export type InkRound = Omit<InkLinearisation, 'next'>;

export interface CurvesDetail extends KeptCurves {
  readonly inks: readonly InkRound[];
  readonly colours: readonly string[];
  readonly presentResultId: number | null;
  readonly limits: readonly number[];
}

export function roundOf({ ink, steps, wrong, noise, largest, mean }: InkLinearisation): InkRound {
  return { ink, steps, wrong, noise, largest, mean };
}

/** Every step within this of its aim, as a tone value, counts as reached. */
export const CURVES_LIMIT = 0.015;

function aimsOf(measure: ToneMeasure, tvi: TviChoice | undefined): TviAim[] | undefined {
  if (measure !== 'tvi') return undefined;
  if (tvi === undefined)
    throw new Problem('bad-input', 'A TVI aim is missing.', 'Choose A to E or own points.', 'tvi');
  if ('letter' in tvi) return PROCESS_INKS.map(() => tviAim(tvi.letter));
  if (tvi.points.some(({ tone, increase }) => !(tone > 0 && tone < 1 && increase >= -0.2 && increase <= 0.5)))
    throw new Problem('bad-input', 'Points lie between 0 and 100 %.', 'Change them and try again.', 'tvi');
  const aim = tviAimOfPoints(tvi.points);
  return PROCESS_INKS.map(() => aim);
}

async function limitsOf(
  services: Services,
  conditionId: number,
): Promise<{
  readonly id: number | null;
  readonly limits: readonly number[];
  readonly total: number | null;
}> {
  const head = (await listHeads(services.database, conditionId)).find(({ link }) => link === 'limits');
  if (head === undefined) return { id: null, limits: [1, 1, 1, 1], total: null };
  const { limits, total } = JSON.parse(head.summary) as LimitsSummary;
  return { id: head.id, limits, total };
}

/** One round of curves from a reading of ramps, as a new version. */
export async function makeCurves(
  services: Services,
  conditionId: number,
  choices: CurvesChoices,
): Promise<{ readonly id: number }> {
  const reading = await pressReading(services, conditionId, choices.readingId, 'ramps');
  const { limits, total, id: limitsId } = await limitsOf(services, conditionId);
  const inks = lineariseReading(reading, limits, choices);
  const curves = inks.map(({ next }) => next);
  const before = reading.print.curvesResultId;
  const earlier = before === null ? undefined : await findResult(services.database, before);
  const round = earlier?.link === 'curves' ? (JSON.parse(earlier.summary) as CurvesSummary).round + 1 : 1;
  const summary: CurvesSummary = {
    round,
    measure: choices.measure,
    tvi: choices.tvi ?? null,
    largest: Math.max(...inks.map(({ largest }) => largest)),
    mean: inks.reduce((sum, ink) => sum + ink.mean, 0) / inks.length,
    dmax: fullDensities(reading),
    ramps: printedRamps(reading),
    code: reading.print.code,
    imported: null,
    total: total === null ? null : { device: total, input: inputTotalOf(total, curves) },
  };
  const detail: CurvesDetail = {
    curves: roundCurves(curves),
    native: roundCurves(nativeResponse(reading.device, reading.xyz, reading.present)),
    inks: inks.map(roundOf),
    colours: solidColours(reading),
    presentResultId: before,
    limits,
  };
  return store(
    services,
    conditionId,
    summary,
    detail,
    [choices.readingId],
    limitsId === null ? [] : [limitsId],
  );
}

export function lineariseReading(
  reading: PressReading,
  limits: readonly number[],
  choices: Pick<CurvesChoices, 'measure' | 'tvi'>,
): InkLinearisation[] {
  const ramps = inkRamps(reading.device, reading.xyz, reading.densities);
  if (ramps.length < PROCESS_INKS.length)
    throw new Problem('bad-input', 'The reading lacks a ramp.', 'Read a ramps chart.', 'readingId');
  return linearise({
    ramps,
    paper: reading.paper,
    present: reading.present,
    limits,
    measure: choices.measure,
    tviAims: aimsOf(choices.measure, choices.tvi),
  });
}

/** Curves from a CSV file, as a new version; channels that the file lacks stay as they are. */
export async function importCurves(
  services: Services,
  conditionId: number,
  name: string,
  text: string,
): Promise<{ readonly id: number }> {
  await conditionOf(services, conditionId);
  const parsed = curvesFromCsv(text);
  if (!parsed.ok)
    throw new Problem(
      'bad-input',
      `The file cannot be used: ${parsed.issues.map(issueText).join('; ')}.`,
      'Nothing was stored. Mend the file and give it again.',
    );
  const head = (await listHeads(services.database, conditionId)).find(({ link }) => link === 'curves');
  const before =
    head === undefined
      ? undefined
      : (JSON.parse((await findResult(services.database, head.id))?.detail ?? '{}') as CurvesDetail);
  const old: ToneCurves =
    before === undefined ? identityCurves() : before.curves.map((curve) => Float64Array.from(curve));
  const known = PROCESS_INKS.filter((ink) => parsed.value.curves.has(ink));
  if (known.length === 0)
    throw new Problem(
      'bad-input',
      `The file has no curve of C, M, Y or K; it names ${[...parsed.value.curves.keys()].join(', ').slice(0, 80)}.`,
      'Nothing was stored. Name the columns C, M, Y, K.',
    );
  const curves = PROCESS_INKS.map((ink, i) => parsed.value.curves.get(ink) ?? old[i]);
  const { limits, total } = await limitsOf(services, conditionId);
  const summary: CurvesSummary = {
    ...{ round: 1, measure: 'sctv', tvi: null, largest: 0, mean: 0, dmax: [], ramps: [], code: '' },
    imported: name.slice(0, 120),
    total: total === null ? null : { device: total, input: inputTotalOf(total, curves) },
  };
  const detail: CurvesDetail = {
    curves: roundCurves(curves),
    native: before?.native,
    inks: [],
    colours: before?.colours ?? [],
    presentResultId: null,
    limits,
  };
  return store(services, conditionId, summary, detail, [], []);
}

async function store(
  services: Services,
  conditionId: number,
  summary: CurvesSummary,
  detail: CurvesDetail,
  readings: readonly number[],
  results: readonly number[],
): Promise<{ readonly id: number }> {
  const madeMs = await domainNow(services);
  return services.database.transaction((sql) =>
    insertResult(
      sql,
      { conditionId, link: 'curves', verdict: null, summary, detail, madeMs },
      { readings, results },
      LOCAL_PERSON,
    ),
  );
}

/** Mean density over paper of the full tones as printed. */
function fullDensities({ device, xyz, densities }: PressReading): number[] {
  return inkRamps(device, xyz, densities).map(({ tone, density }) => {
    const full = Array.from(density).filter((_, i) => tone[i] > 0.995);
    return full.reduce((sum, value) => sum + value, 0) / Math.max(1, full.length);
  });
}

const RAMP_STEPS = 9;

/** Lab of the patches nearest to nine even steps along each ink's ramp. */
function printedRamps({ device, xyz, densities, lab }: PressReading): number[][][] {
  return inkRamps(device, xyz, densities).map(({ rows, tone }) =>
    Array.from({ length: RAMP_STEPS }, (_, step) => {
      let nearest = 0;
      tone.forEach((value, i) => {
        if (Math.abs(value - step / (RAMP_STEPS - 1)) < Math.abs(tone[nearest] - step / (RAMP_STEPS - 1)))
          nearest = i;
      });
      return [...lab.subarray(3 * rows[nearest], 3 * rows[nearest] + 3)];
    }),
  );
}
