import type { StockFacts } from '@melto/core/stock/stockFacts';
import type { Process } from '@melto/core/device/process';
import { factsOf } from './devices.ts';
import type { Sql } from './database.ts';
import { updateFound } from './updateFound.ts';

/** One chart on many stocks. */
export interface PaperTrialRow {
  readonly id: number;
  readonly name: string;
  readonly device: string;
  readonly mode: string;
  readonly patches: number;
  readonly author: string;
  readonly madeMs: number;
  readonly removedMs: number | null;
  readonly process: Process;
}

const SELECT = `SELECT t.id, t.name, d.name AS device, t.mode, t.patches, p.name AS author, t.made_ms AS madeMs, t.removed_ms AS removedMs, d.process
  FROM paper_trial t JOIN device d ON d.id = t.device_id JOIN person p ON p.id = t.author_id`;

type Raw = Omit<PaperTrialRow, 'process'> & { readonly process: string };
const rowOf = (row: Raw): PaperTrialRow => ({ ...row, process: JSON.parse(row.process) as Process });

/** Those that were not removed, the newest first. */
export async function listPaperTrials(sql: Sql, limit: number): Promise<PaperTrialRow[]> {
  const rows = await sql.rows<Raw>(
    `${SELECT} WHERE t.house_id = ? AND t.removed_ms IS NULL ORDER BY t.id DESC LIMIT ?`,
    [sql.house, String(limit)],
  );
  return rows.map(rowOf);
}

export async function findPaperTrial(sql: Sql, id: number): Promise<PaperTrialRow | undefined> {
  const [row] = await sql.rows<Raw>(`${SELECT} WHERE t.id = ? AND t.house_id = ?`, [id, sql.house]);
  return row === undefined ? undefined : rowOf(row);
}

/** A stock of a trial, how far its sheets are read, and its newest complete readings with ultraviolet and without. */
export interface TrialPrintRow {
  readonly printId: number;
  readonly conditionId: number;
  readonly code: string;
  readonly stock: string;
  readonly facts: StockFacts;
  readonly restUntilMs: number;
  readonly strips: number;
  readonly stripsRead: number;
  readonly readingId: number | null;
  readonly mode: string | null;
  readonly darkReadingId: number | null;
}

export async function listTrialPrints(sql: Sql, trialId: number): Promise<TrialPrintRow[]> {
  const newest = (modes: string): string =>
    `(SELECT MAX(r.id) FROM reading r WHERE r.print_id = p.id AND r.house_id = p.house_id AND r.mode ${modes} AND r.finished_ms IS NOT NULL AND r.withdrawn_ms IS NULL)`;
  const rows = await sql.rows<Omit<TrialPrintRow, 'facts'> & { facts: string | null }>(
    `SELECT p.id AS printId, p.condition_id AS conditionId, p.code, s.name AS stock, s.facts, p.rest_until_ms AS restUntilMs,
       (SELECT SUM(strips) FROM sheet WHERE print_id = p.id) AS strips, (SELECT SUM(strips_read) FROM sheet WHERE print_id = p.id) AS stripsRead,
       lit.id AS readingId, lit.mode, ${newest("= 'M2'")} AS darkReadingId
     FROM paper_trial_print tp JOIN print p ON p.id = tp.print_id JOIN printing_condition c ON c.id = p.condition_id
       JOIN stock s ON s.id = c.stock_id LEFT JOIN reading lit ON lit.id = ${newest("<> 'M2'")}
     WHERE tp.trial_id = ? AND tp.house_id = ? ORDER BY s.name, p.id`,
    [trialId, sql.house],
  );
  return rows.map((row) => ({
    ...row,
    strips: Number(row.strips),
    stripsRead: Number(row.stripsRead),
    facts: factsOf<StockFacts>(row.facts),
  }));
}

export async function insertPaperTrial(
  sql: Sql,
  trial: {
    readonly name: string;
    readonly deviceId: number;
    readonly mode: string;
    readonly patches: number;
    readonly prints: readonly number[];
    readonly madeMs: number;
  },
): Promise<number> {
  const { id } = await sql.change(
    'INSERT INTO paper_trial (house_id, name, device_id, mode, patches, author_id, made_ms) VALUES (?, ?, ?, ?, ?, ?, ?)',
    [sql.house, trial.name, trial.deviceId, trial.mode, trial.patches, sql.person, trial.madeMs],
  );
  for (const printId of trial.prints)
    await sql.change('INSERT INTO paper_trial_print (house_id, trial_id, print_id) VALUES (?, ?, ?)', [
      ...[sql.house, id, printId],
    ]);
  return id;
}

/** Marks a trial as removed, or takes that back; its prints and readings stay. False where there is none. */
export function setPaperTrialRemoved(sql: Sql, id: number, removedMs: number | null): Promise<boolean> {
  return updateFound(sql, 'paper_trial', id, 'removed_ms = ?', [removedMs]);
}
