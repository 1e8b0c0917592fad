import { verdictOf } from '@melto/core/judgement/verdict';
import type { ChartPurpose } from '@melto/store/charts';
import { upsertReached } from '@melto/store/reached';
import { findResult } from '@melto/store/results';
import { domainNow } from '../kernel/clock.ts';
import type { Context } from '../kernel/context.ts';
import { BALANCE } from '../ledger/kinds/balanceKind.ts';
import { CURVES } from '../ledger/kinds/curvesKind.ts';
import { storedOf } from '../ledger/resultKind.ts';
import { judgeScales } from './balance.ts';
import { CURVES_LIMIT, lineariseReading, roundOf } from './curves.ts';
import { measureEvenness } from './evenness.ts';
import { pressReading } from './pressReading.ts';

/** What a fresh sheet says of curves: departures of its steps, tone values 0..1. */
export interface CurvesReached {
  readonly largest: number;
  readonly mean: number;
  readonly limit: number;
  readonly code: string;
}

/** Judges what a complete sheet was printed through: curves by its ramps, balance by its greys, zones by its width. */
export async function judgeReached(
  context: Context,
  conditionId: number,
  purpose: ChartPurpose,
  readingId: number,
): Promise<void> {
  if (purpose !== 'ramps' && purpose !== 'near-neutral' && purpose !== 'evenness') return;
  const reading = await pressReading(context, conditionId, readingId, purpose);
  const { curvesResultId, evennessResultId, code } = reading.print;
  if (purpose === 'evenness') {
    if (evennessResultId === null) return;
    const evenness = await measureEvenness(context, reading);
    const summary = { mean: evenness.mean, largest: evenness.largest, code };
    await store(context, evennessResultId, readingId, 'current', summary, evenness);
    return;
  }
  if (curvesResultId === null) return;
  const result = await findResult(context.database, curvesResultId);
  if (result === undefined) return;
  if (purpose === 'ramps' && result.shape === CURVES.shape) {
    const { summary: made, detail } = storedOf(CURVES, result, result.detail);
    const choices = { measure: made.measure, tvi: made.tvi ?? undefined };
    const inks = lineariseReading(reading, detail.limits, choices).map(roundOf);
    const largest = Math.max(...inks.map((ink) => ink.largest));
    const mean = inks.reduce((sum, ink) => sum + ink.mean, 0) / inks.length;
    const summary: CurvesReached = { largest, mean, limit: CURVES_LIMIT, code };
    await store(context, result.id, readingId, verdictOf(largest, CURVES_LIMIT), summary, inks);
  }
  if (purpose === 'near-neutral' && result.shape === BALANCE.shape) {
    const judgement = judgeScales(reading);
    const summary = {
      figures: judgement.figures,
      limits: judgement.limits,
      extrapolated: judgement.extrapolated,
      code,
    };
    await store(context, result.id, readingId, judgement.verdict, summary, judgement);
  }
}

async function store(
  context: Context,
  resultId: number,
  readingId: number,
  verdict: string,
  summary: unknown,
  detail: unknown,
): Promise<void> {
  await upsertReached(context.database, {
    resultId,
    readingId,
    verdict,
    summary: JSON.stringify(summary),
    detail: JSON.stringify(detail),
    madeMs: await domainNow(context),
  });
}
