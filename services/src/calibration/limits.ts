import { proposeLimit } from '@melto/core/limits/proposeLimit';
import { proposeTotalInk } from '@melto/core/limits/totalInk';
import { inkRamps } from '@melto/core/tone/inkRamps';
import { insertResult, listResults } from '@melto/store/results';
import { domainNow } from '../kernel/clock.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { conditionOf } from '../ledger/conditions.ts';
import { CURVES } from '../ledger/kinds/curvesKind.ts';
import { LIMITS } from '../ledger/kinds/limitsKind.ts';
import type { LimitsDetail, LimitsSummary } from '../ledger/kinds/limitsKind.ts';
import { summaryOf, toStore } from '../ledger/resultKind.ts';
import type { Stored } from '../ledger/resultKind.ts';
import { storedHead } from '../ledger/storedResult.ts';
import { pressReading } from './pressReading.ts';
import { solidColours } from './solidColours.ts';

export interface LimitsEdit {
  readonly limits: readonly number[];
  readonly total: number;
}

const LEAST_LIMIT = 0.2;

/** Proposes limits from a reading of ramps that were printed without curves, as a new version. */
export async function proposeLimits(
  context: Context,
  conditionId: number,
  readingId: number,
): Promise<{ readonly id: number }> {
  const { summary, detail } = await workLimits(context, conditionId, readingId);
  return store(context, conditionId, summary, detail);
}

/** Limits as a reading of ramps proposes them; nothing is stored. */
export async function workLimits(
  context: Context,
  conditionId: number,
  readingId: number,
): Promise<Stored<LimitsSummary, LimitsDetail>> {
  const reading = await pressReading(context, conditionId, readingId, 'ramps');
  if (reading.print.curvesResultId !== null)
    throw new Problem(
      'bad-input',
      'These ramps were printed through curves; limits are device values.',
      'Print ramps without curves.',
      'readingId',
    );
  const { device, xyz, densities, paper } = reading;
  const { process } = reading.condition;
  const ramps = inkRamps(process, device, xyz, densities);
  if (ramps.length < process.channels.length)
    throw new Problem('bad-input', 'The reading lacks a ramp.', 'Read a ramps chart.', 'readingId');
  const proposals = ramps.map((ramp) => proposeLimit(ramp, paper));
  const totalInk = proposeTotalInk(device, xyz, paper[1], process) ?? null;
  const summary: LimitsSummary = {
    limits: proposals.map(({ limit }) => limit),
    total: totalInk?.total ?? process.channels.length,
    dmax: proposals.map(({ dmax }) => dmax),
    code: reading.print.code,
    edited: false,
  };
  const detail: LimitsDetail = { readingId, proposals, totalInk, colours: solidColours(reading) };
  return { summary, detail };
}

/** Other limits over the same reading, as a new version. */
export async function editLimits(
  context: Context,
  conditionId: number,
  edit: LimitsEdit,
): Promise<{ readonly id: number }> {
  const { process } = await conditionOf(context, conditionId);
  const head = await storedHead(context, conditionId, LIMITS);
  if (head === undefined)
    throw new Problem('conflict', 'There are no limits yet.', 'Have them proposed from a reading first.');
  if (head.row.conditionId !== conditionId)
    throw new Problem(
      'conflict',
      'These limits are borrowed.',
      'Edit them where they were made, or make own ones.',
    );
  const channels = process.channels.length;
  if (edit.limits.length !== channels || edit.limits.some((limit) => !(limit >= LEAST_LIMIT && limit <= 1)))
    throw new Problem('bad-input', 'A limit is 20 to 100 %.', 'Change it and try again.', 'limits');
  if (!(edit.total >= 1 && edit.total <= channels))
    throw new Problem(
      'bad-input',
      `Total ink is 100 to ${100 * channels} %.`,
      'Change it and try again.',
      'total',
    );
  const summary: LimitsSummary = {
    ...head.summary,
    limits: [...edit.limits],
    total: edit.total,
    edited: true,
  };
  return store(context, conditionId, summary, head.detail);
}

async function store(
  context: Context,
  conditionId: number,
  summary: LimitsSummary,
  detail: LimitsDetail,
): Promise<{ readonly id: number }> {
  const madeMs = await domainNow(context);
  return unitOfWork(context, ({ database }) =>
    insertResult(
      database,
      { conditionId, ...toStore(LIMITS, { summary, detail }), verdict: null, madeMs },
      { readings: [detail.readingId], results: [] },
    ),
  );
}

/** Latest results that the history of Dmax is taken from. */
const HISTORY = 60;

/** Dmax of each ink over the condition's earlier readings, oldest first. */
export async function dmaxHistory(
  { database }: Context,
  conditionId: number,
): Promise<readonly { readonly code: string; readonly madeMs: number; readonly dmax: readonly number[] }[]> {
  const seen = new Set<string>();
  const { rows } = await listResults(database, conditionId, ['limits', 'curves'], { limit: HISTORY });
  return [...rows].reverse().flatMap((row) => {
    const { dmax, code } = row.shape === LIMITS.shape ? summaryOf(LIMITS, row) : summaryOf(CURVES, row);
    if (dmax.length === 0 || seen.has(code)) return [];
    seen.add(code);
    return [{ code, madeMs: row.madeMs, dmax }];
  });
}
