import { proposeLimit } from '@melto/core/limits/proposeLimit';
import type { LimitProposal } from '@melto/core/limits/proposeLimit';
import { proposeTotalInk } from '@melto/core/limits/totalInk';
import type { TotalInkProposal } from '@melto/core/limits/totalInk';
import { inkRamps } from '@melto/core/tone/inkRamps';
import { insertResult, listHeads, listResults } from '@melto/store/results';
import { domainNow } from '../kernel/clock.ts';
import { LOCAL_PERSON } from '../kernel/context.ts';
import type { Services } from '../kernel/context.ts';
import { pressReading } from './pressReading.ts';
import { solidColours } from './solidColours.ts';
import { Problem } from '../kernel/problem.ts';
import { resultView } from '../ledger/versions.ts';

export interface LimitsSummary {
  /** Device values 0..1 of C, M, Y, K, and in total (1 = 100 %). */
  readonly limits: readonly number[];
  readonly total: number;
  /** Density over paper of the full tones. */
  readonly dmax: readonly number[];
  readonly code: string;
  readonly edited: boolean;
}

export interface LimitsDetail {
  readonly readingId: number;
  readonly proposals: readonly LimitProposal[];
  readonly totalInk: TotalInkProposal | null;
  /** Screen colours of the solids. */
  readonly colours: readonly string[];
}

export interface LimitsEdit {
  readonly limits: readonly number[];
  readonly total: number;
}

const LEAST_LIMIT = 0.2;

/** Proposes limits from a reading of ramps that were printed without curves, as a new version. */
export async function proposeLimits(
  services: Services,
  conditionId: number,
  readingId: number,
): Promise<{ readonly id: number }> {
  const reading = await pressReading(services, conditionId, readingId, 'ramps');
  if (reading.print.curvesResultId !== null)
    throw new Problem(
      'bad-input',
      'These ramps were printed through curves; limits are device values.',
      'Print ramps without curves.',
      'readingId',
    );
  const { device, xyz, densities, paper } = reading;
  const ramps = inkRamps(device, xyz, densities);
  if (ramps.length < 4)
    throw new Problem('bad-input', 'The reading lacks a ramp.', 'Read a ramps chart.', 'readingId');
  const proposals = ramps.map((ramp) => proposeLimit(ramp, paper));
  const totalInk = proposeTotalInk(device, xyz, paper[1]) ?? null;
  const summary: LimitsSummary = {
    limits: proposals.map(({ limit }) => limit),
    total: totalInk?.total ?? 4,
    dmax: proposals.map(({ dmax }) => dmax),
    code: reading.print.code,
    edited: false,
  };
  const detail: LimitsDetail = { readingId, proposals, totalInk, colours: solidColours(reading) };
  return store(services, conditionId, summary, detail);
}

/** Other limits over the same reading, as a new version. */
export async function editLimits(
  services: Services,
  conditionId: number,
  edit: LimitsEdit,
): Promise<{ readonly id: number }> {
  const head = (await listHeads(services.database, conditionId)).find(({ link }) => link === 'limits');
  if (head === undefined)
    throw new Problem('conflict', 'There are no limits yet.', 'Have them proposed from a reading first.');
  if (head.conditionId !== conditionId)
    throw new Problem(
      'conflict',
      'These limits are borrowed.',
      'Edit them where they were made, or make own ones.',
    );
  const view = await resultView<LimitsSummary, LimitsDetail>(services, head.id, 'limits');
  if (edit.limits.length !== 4 || edit.limits.some((limit) => !(limit >= LEAST_LIMIT && limit <= 1)))
    throw new Problem('bad-input', 'A limit is 20 to 100 %.', 'Change it and try again.', 'limits');
  if (!(edit.total >= 1 && edit.total <= 4))
    throw new Problem('bad-input', 'Total ink is 100 to 400 %.', 'Change it and try again.', 'total');
  const summary: LimitsSummary = {
    ...view.summary,
    limits: [...edit.limits],
    total: edit.total,
    edited: true,
  };
  return store(services, conditionId, summary, view.detail);
}

async function store(
  services: Services,
  conditionId: number,
  summary: LimitsSummary,
  detail: LimitsDetail,
): Promise<{ readonly id: number }> {
  const madeMs = await domainNow(services);
  return services.database.transaction((sql) =>
    insertResult(
      sql,
      { conditionId, link: 'limits', verdict: null, summary, detail, madeMs },
      { readings: [detail.readingId], results: [] },
      LOCAL_PERSON,
    ),
  );
}

/** Dmax of each ink over the condition's earlier readings, oldest first. */
export async function dmaxHistory(
  services: Services,
  conditionId: number,
): Promise<readonly { readonly code: string; readonly madeMs: number; readonly dmax: readonly number[] }[]> {
  const seen = new Set<string>();
  return (await listResults(services.database, conditionId))
    .filter(({ link }) => link === 'limits' || link === 'curves')
    .reverse()
    .flatMap((row) => {
      const { dmax, code } = JSON.parse(row.summary) as { dmax?: readonly number[]; code: string };
      if (dmax === undefined || seen.has(code)) return [];
      seen.add(code);
      return [{ code, madeMs: row.madeMs, dmax }];
    });
}
