import type { ChartPurpose } from '@melto/store/charts';
import { upsertReached } from '@melto/store/reached';
import { findResult } from '@melto/store/results';
import { judgeScales } from './balance.ts';
import { domainNow } from '../kernel/clock.ts';
import type { Services } from '../kernel/context.ts';
import { CURVES_LIMIT, lineariseReading, roundOf } from './curves.ts';
import type { CurvesDetail, CurvesSummary, InkRound } from './curves.ts';
import { measureEvenness } from './evenness.ts';
import { pressReading } from './pressReading.ts';
import type { PressReading } from './pressReading.ts';

/** What a fresh sheet says of curves: departures of its steps, tone values 0..1. */
export interface CurvesReached {
  readonly largest: number;
  readonly mean: number;
  readonly limit: number;
  readonly code: string;
}

const NEAR = 0.8;

function verdictOf(share: number): string {
  return share > 1 ? 'does-not-conform' : share > NEAR ? 'near' : 'conforms';
}

/** Judges what a complete sheet was printed through: curves by its ramps, balance by its greys, zones by its width. */
export async function judgeReached(
  services: Services,
  conditionId: number,
  purpose: ChartPurpose,
  readingId: number,
): Promise<void> {
  if (purpose !== 'ramps' && purpose !== 'near-neutral' && purpose !== 'evenness') return;
  const reading = await pressReading(services, conditionId, readingId, purpose);
  const { curvesResultId, evennessResultId, code } = reading.print;
  if (purpose === 'evenness') {
    if (evennessResultId === null) return;
    const evenness = await measureEvenness(services, reading);
    const summary = { mean: evenness.mean, largest: evenness.largest, code };
    await store(services, evennessResultId, readingId, 'current', summary, evenness);
    return;
  }
  if (curvesResultId === null) return;
  const result = await findResult(services.database, curvesResultId);
  if (result === undefined) return;
  if (purpose === 'ramps' && result.link === 'curves') {
    const inks = reachedRamps(
      reading,
      JSON.parse(result.summary) as CurvesSummary,
      JSON.parse(result.detail) as CurvesDetail,
    );
    const largest = Math.max(...inks.map((ink) => ink.largest));
    const mean = inks.reduce((sum, ink) => sum + ink.mean, 0) / inks.length;
    const summary: CurvesReached = { largest, mean, limit: CURVES_LIMIT, code };
    await store(services, result.id, readingId, verdictOf(largest / CURVES_LIMIT), summary, inks);
  }
  if (purpose === 'near-neutral' && result.link === 'balance') {
    const judgement = judgeScales(reading);
    const summary = {
      figures: judgement.figures,
      limits: judgement.limits,
      extrapolated: judgement.extrapolated,
      code,
    };
    await store(services, result.id, readingId, judgement.verdict, summary, judgement);
  }
}

function reachedRamps(reading: PressReading, summary: CurvesSummary, { limits }: CurvesDetail): InkRound[] {
  return lineariseReading(reading, limits, { measure: summary.measure, tvi: summary.tvi ?? undefined }).map(
    roundOf,
  );
}

async function store(
  services: Services,
  resultId: number,
  readingId: number,
  verdict: string,
  summary: unknown,
  detail: unknown,
): Promise<void> {
  await upsertReached(services.database, {
    resultId,
    readingId,
    verdict,
    summary: JSON.stringify(summary),
    detail: JSON.stringify(detail),
    madeMs: await domainNow(services),
  });
}
