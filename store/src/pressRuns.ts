import { createHash } from 'node:crypto';
import type { RunPlan } from '@melto/core/press/runAdvice';
import { USUAL_LIGHT } from '@melto/core/press/runLight';
import type { RunLight } from '@melto/core/press/runLight';
import type { Phase, RunSettings } from '@melto/core/press/runSettings';
import type { SpectralGrid } from '@melto/core/spectral/spectralGrid';
import type { Sql } from './database.ts';
import { holding, LAST_ID, pageOf } from './page.ts';
import type { Page, PageAsked } from './page.ts';
import { lockRow } from './lockRow.ts';

/** A run without its plan. */
export interface RunFacts {
  readonly id: number;
  readonly conditionId: number;
  readonly condition: string;
  readonly jobNumber: string;
  readonly title: string;
  readonly customer: string;
  readonly side: string;
  readonly quantity: number;
  readonly repeatMm: number | null;
  readonly aimSetId: number;
  readonly aims: string;
  readonly phase: Phase;
  readonly productionFrom: number | null;
  readonly okImpression: number | null;
  readonly edition: number;
  readonly fromRunId: number | null;
  readonly author: string;
  readonly madeMs: number;
}

/** How far a run was read. */
export interface RunCounts {
  readonly sheets: number;
  readonly lastImpression: number | null;
  /** Judged patches of all its sheets, and how many of them are outside. */
  readonly judged: number;
  readonly outside: number;
}

export interface RunRow extends RunFacts, RunCounts {}

export interface RunWithPlan extends RunFacts {
  readonly plan: Omit<RunPlan, 'settings'>;
  readonly settings: RunSettings;
  readonly simulated: string | null;
  /** Result of the curves that its plates were made with; null for none, undefined where that was not kept. */
  readonly curvesResultId: number | null | undefined;
  /** Its aims were moved to an OK sheet whose solids were outside of those that it began with. */
  readonly aimsAway: boolean;
}

const COLUMNS = `r.id, r.condition_id AS conditionId, CONCAT(d.name, ' / ', s.name, ' / ', c.mode, IF(c.label = '', '', CONCAT(', ', c.label))) AS \`condition\`, r.job_number AS jobNumber, r.title, r.customer, r.side, r.quantity, r.repeat_mm AS repeatMm,
  r.aim_set_id AS aimSetId, a.name AS aims, r.phase, r.production_from AS productionFrom, r.ok_impression AS okImpression, r.edition, r.from_run_id AS fromRunId, p.name AS author, r.made_ms AS madeMs`;
const FROM = `FROM press_run r JOIN printing_condition c ON c.id = r.condition_id JOIN device d ON d.id = c.device_id JOIN stock s ON s.id = c.stock_id
  JOIN aim_set a ON a.id = r.aim_set_id JOIN person p ON p.id = r.author_id`;
const COUNTED = `(SELECT COUNT(*) FROM press_sheet x WHERE x.run_id = r.id) AS sheets, (SELECT MAX(impression) FROM press_sheet x WHERE x.run_id = r.id) AS lastImpression,
  (SELECT COALESCE(SUM(judged), 0) FROM press_sheet x WHERE x.run_id = r.id) AS judged, (SELECT COALESCE(SUM(outside), 0) FROM press_sheet x WHERE x.run_id = r.id) AS outside`;

const counted = <T extends RunCounts>(row: T): T => ({
  ...row,
  sheets: Number(row.sheets),
  judged: Number(row.judged),
  outside: Number(row.outside),
});

/** Runs whose number, title, customer, condition or side hold what was typed, the newest first. */
export async function listRuns(
  sql: Sql,
  { after = LAST_ID, limit, find = '' }: PageAsked,
): Promise<Page<RunRow>> {
  const like = holding(find);
  const rows = await sql.rows<RunRow>(
    `SELECT ${COLUMNS}, ${COUNTED} ${FROM}
     WHERE r.house_id = ? AND r.id < ? AND (r.job_number LIKE ? OR r.title LIKE ? OR r.customer LIKE ? OR d.name LIKE ? OR s.name LIKE ? OR r.side LIKE ?)
     ORDER BY r.id DESC LIMIT ?`,
    [sql.house, String(after), like, like, like, like, like, like, String(limit + 1)],
  );
  return pageOf(rows.map(counted), limit, ({ id }) => id);
}

type Stored = RunFacts & {
  readonly plan: string;
  readonly settings: string;
  readonly simulated: string | null;
  readonly curvesResultId: number | null;
  readonly curvesKnown: number;
  readonly aimsAway: number;
};

/** @param lock waits for whoever changes the run, and keeps others out until the transaction ends. */
export async function findRun(sql: Sql, id: number, lock = false): Promise<RunWithPlan | undefined> {
  if (lock) await lockRow(sql, 'press_run', id);
  const [row] = await sql.rows<Stored>(
    `SELECT ${COLUMNS}, r.plan, r.settings, r.simulated, r.curves_result_id AS curvesResultId, r.curves_known AS curvesKnown, r.aims_away AS aimsAway ${FROM} WHERE r.id = ? AND r.house_id = ?`,
    [id, sql.house],
  );
  if (row === undefined) return undefined;
  const { curvesKnown, ...rest } = row;
  return {
    ...rest,
    curvesResultId: curvesKnown === 1 ? row.curvesResultId : undefined,
    aimsAway: row.aimsAway === 1,
    plan: decodePlan(row.plan),
    settings: decodeSettings(row.settings),
  };
}

/** A run without what only the house itself needs. */
export function factsOf(run: RunWithPlan): RunFacts {
  const { plan: _plan, settings: _settings, simulated: _simulated, curvesResultId: _curves, ...rest } = run;
  const { aimsAway: _away, ...facts } = rest;
  return facts;
}

/** Not with each run: it grows with the sheets, and whoever takes a sheet has no use for it. */
export async function countSheets(sql: Sql, runId: number): Promise<RunCounts> {
  const [row] = await sql.rows<RunCounts>(
    'SELECT COUNT(*) AS sheets, MAX(impression) AS lastImpression, COALESCE(SUM(judged), 0) AS judged, COALESCE(SUM(outside), 0) AS outside FROM press_sheet WHERE run_id = ? AND house_id = ?',
    [runId, sql.house],
  );
  return counted(row);
}

/** Runs from before the light was a setting were judged as colours are measured. */
const decodeSettings = (text: string): RunSettings => ({
  ...USUAL_LIGHT,
  ...(JSON.parse(text) as Omit<RunSettings, keyof RunLight>),
});

/** Aims hold NaN where there is none, which JSON has not. */
function decodePlan(text: string): Omit<RunPlan, 'settings'> {
  const { units, bar, lab, tone, spectra } = JSON.parse(text) as Pick<RunPlan, 'units' | 'bar'> & {
    readonly lab: readonly (number | null)[];
    readonly tone: readonly (number | null)[];
    readonly spectra?: { readonly grid: SpectralGrid; readonly values: readonly number[] };
  };
  const numbers = (values: readonly (number | null)[]): Float64Array =>
    Float64Array.from(values, (value) => value ?? NaN);
  const aims = { lab: numbers(lab), tone: numbers(tone) };
  if (spectra === undefined) return { units, bar, aims };
  const { grid, values } = spectra;
  return { units, bar, aims: { ...aims, spectra: { grid, values: Float64Array.from(values) } } };
}

export function encodePlan({ units, bar, aims }: Omit<RunPlan, 'settings'>): string {
  const spectra = aims.spectra && { grid: aims.spectra.grid, values: [...aims.spectra.values] };
  return JSON.stringify({ units, bar, lab: [...aims.lab], tone: [...aims.tone], spectra });
}

/** Tells runs apart whose sheets cannot be put together. */
function barDigest({ units, bar }: Pick<RunPlan, 'units' | 'bar'>): string {
  return createHash('sha256')
    .update(JSON.stringify([units.map(({ ink, filter }) => ({ ink, filter })), bar]))
    .digest('hex')
    .slice(0, 32);
}

export type NewRunRow = Pick<
  RunWithPlan,
  | 'conditionId'
  | 'jobNumber'
  | 'title'
  | 'customer'
  | 'side'
  | 'quantity'
  | 'repeatMm'
  | 'aimSetId'
  | 'fromRunId'
  | 'madeMs'
  | 'plan'
  | 'settings'
  | 'simulated'
> & {
  readonly curvesResultId: number | null;
};

export async function insertRun(sql: Sql, run: NewRunRow): Promise<number> {
  const { id } = await sql.change(
    `INSERT INTO press_run (house_id, condition_id, job_number, title, customer, side, quantity, repeat_mm, aim_set_id, plan, bar_digest, settings, phase, from_run_id, author_id, made_ms, simulated, curves_result_id, curves_known)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, 'make-ready', ?, ?, ?, ?, ?, 1)`,
    [
      ...[sql.house, run.conditionId, run.jobNumber, run.title, run.customer, run.side, run.quantity],
      ...[run.repeatMm, run.aimSetId, encodePlan(run.plan), barDigest(run.plan)],
      ...[JSON.stringify(run.settings), run.fromRunId],
      ...[sql.person, run.madeMs, run.simulated, run.curvesResultId],
    ],
  );
  return id;
}

/** What of a run changes; each change makes its edition grow. */
export type RunChange = Partial<Pick<RunRow, 'phase' | 'productionFrom' | 'okImpression'>> & {
  readonly plan?: Omit<RunPlan, 'settings'>;
  readonly settings?: RunSettings;
  readonly aimsAway?: true;
};

/** Changes what is told, keeps the rest; false where there is no such run. */
export async function updateRun(sql: Sql, id: number, change: RunChange): Promise<boolean> {
  const { affected } = await sql.change(
    `UPDATE press_run SET edition = edition + 1, phase = COALESCE(?, phase), production_from = COALESCE(?, production_from),
       ok_impression = COALESCE(?, ok_impression), plan = COALESCE(?, plan), settings = COALESCE(?, settings), aims_away = COALESCE(?, aims_away) WHERE id = ? AND house_id = ?`,
    [
      ...[change.phase ?? null, change.productionFrom ?? null, change.okImpression ?? null],
      change.plan === undefined ? null : encodePlan(change.plan),
      change.settings === undefined ? null : JSON.stringify(change.settings),
      change.aimsAway === undefined ? null : 1,
      ...[id, sql.house],
    ],
  );
  return affected > 0;
}

/** Runs with the same units and bar: of the same job and condition, or of the same device. The newest first. */
export async function listSameBarRuns(
  sql: Sql,
  id: number,
  scope: 'job' | 'press' | 'shift',
  limit: number,
): Promise<{ readonly id: number; readonly settings: RunSettings }[]> {
  const rows = await sql.rows<{ readonly id: number; readonly settings: string }>(
    `SELECT r.id, r.settings FROM press_run own JOIN press_run r ON r.house_id = own.house_id AND r.bar_digest = own.bar_digest
       JOIN printing_condition c ON c.id = r.condition_id JOIN printing_condition oc ON oc.id = own.condition_id
     WHERE own.id = ? AND own.house_id = ? AND ${scope === 'job' ? 'r.job_number = own.job_number' : 'c.device_id = oc.device_id'}
     ORDER BY r.id DESC LIMIT ?`,
    [id, sql.house, String(limit)],
  );
  return rows.map((row) => ({ id: row.id, settings: decodeSettings(row.settings) }));
}

/** A run as the watch of its condition names it. */
export interface RunOfCondition {
  readonly id: number;
  readonly jobNumber: string;
  readonly title: string;
  readonly madeMs: number;
}

/**
 * Finished runs of a condition that a watch can go by, the newest first: their plates are known, they were printed to their
 * aims, and so many sheets of production were read.
 */
export function listFinishedRuns(
  sql: Sql,
  conditionId: number,
  { sheets, limit }: { readonly sheets: number; readonly limit: number },
): Promise<RunOfCondition[]> {
  return sql.rows(
    `SELECT id, job_number AS jobNumber, title, made_ms AS madeMs FROM press_run
     WHERE house_id = ? AND condition_id = ? AND phase = 'finished' AND curves_known = 1 AND aims_away = 0
       AND (SELECT COUNT(*) FROM press_sheet x WHERE x.run_id = press_run.id AND x.phase = 'production') >= ?
     ORDER BY id DESC LIMIT ?`,
    [sql.house, conditionId, String(sheets), String(limit)],
  );
}

/** The editions of some runs, to see what is new. */
export function runEditions(
  sql: Sql,
  ids: readonly number[],
): Promise<{ readonly id: number; readonly edition: number }[]> {
  if (ids.length === 0) return Promise.resolve([]);
  return sql.rows(
    `SELECT id, edition FROM press_run WHERE house_id = ? AND id IN (${ids.map(() => '?').join(', ')})`,
    [sql.house, ...ids],
  );
}

export interface MoveRow {
  readonly id: number;
  readonly unit: number;
  readonly impression: number;
  readonly changes: readonly number[];
  readonly author: string;
  readonly madeMs: number;
}

export async function listMoves(sql: Sql, runId: number): Promise<MoveRow[]> {
  const rows = await sql.rows<Omit<MoveRow, 'changes'> & { readonly changes: string }>(
    `SELECT m.id, m.unit, m.impression, m.changes, p.name AS author, m.made_ms AS madeMs FROM press_move m JOIN person p ON p.id = m.author_id
     WHERE m.run_id = ? AND m.house_id = ? ORDER BY m.impression, m.unit`,
    [runId, sql.house],
  );
  return rows.map((row) => ({ ...row, changes: JSON.parse(row.changes) as number[] }));
}

export async function insertMove(
  sql: Sql,
  runId: number,
  move: Pick<MoveRow, 'unit' | 'impression' | 'changes' | 'madeMs'>,
): Promise<void> {
  await sql.change(
    'INSERT INTO press_move (house_id, run_id, unit, impression, changes, author_id, made_ms) VALUES (?, ?, ?, ?, ?, ?, ?)',
    [sql.house, runId, move.unit, move.impression, JSON.stringify(move.changes), sql.person, move.madeMs],
  );
}
