import type { BarReading } from '@melto/core/press/barReading';
import type { Phase } from '@melto/core/press/runSettings';
import type { SpectralGrid } from '@melto/core/spectral/spectralGrid';
import type { Sql } from './database.ts';
import { decodeValues, encodeValues, floatsOf } from './valueBlock.ts';

/** X, Y, Z and four densities of a patch. */
const MEASURED = 7;

/** A sheet without its values. */
export interface SheetRow {
  readonly id: number;
  readonly impression: number;
  readonly phase: Phase;
  readonly openPatches: number;
  readonly outside: number;
  readonly judged: number;
  readonly spread: number | null;
  readonly readMs: number;
}

export interface SheetWithValues extends SheetRow {
  readonly reading: BarReading;
  /** What it was judged by: row-major patch × 3, ΔE, density, the third figure. */
  readonly figures: Float32Array;
}

const COLUMNS =
  'id, impression, phase, open_patches AS openPatches, outside, judged, spread, read_ms AS readMs';

interface Values {
  readonly measured: Buffer;
  readonly block: Buffer;
  readonly grid: string | null;
  readonly spectra: Buffer | null;
}

const VALUES = 'measured, figures AS block, grid, spectra';

function withValues({ measured, block, grid, spectra, ...row }: SheetRow & Values): SheetWithValues {
  return { ...row, reading: readingOf({ measured, grid, spectra }), figures: floatsOf(block) };
}

function readingOf({ measured, grid, spectra }: Omit<Values, 'block'>): BarReading {
  const values = decodeValues(measured);
  const count = values.length / MEASURED;
  const xyz = new Float64Array(3 * count);
  const density = new Float64Array(4 * count);
  for (let patch = 0; patch < count; patch++) {
    xyz.set(values.subarray(MEASURED * patch, MEASURED * patch + 3), 3 * patch);
    density.set(values.subarray(MEASURED * patch + 3, MEASURED * (patch + 1)), 4 * patch);
  }
  if (grid === null || spectra === null) return { xyz, density };
  return { xyz, density, grid: JSON.parse(grid) as SpectralGrid, spectra: decodeValues(spectra) };
}

function measuredOf({ xyz, density }: BarReading): Buffer {
  const count = xyz.length / 3;
  const values = new Float64Array(MEASURED * count);
  for (let patch = 0; patch < count; patch++) {
    values.set(xyz.subarray(3 * patch, 3 * patch + 3), MEASURED * patch);
    values.set(density.subarray(4 * patch, 4 * patch + 4), MEASURED * patch + 3);
  }
  return encodeValues(values);
}

/** The newest sheets of a run with their values, in the order of impressions. */
export async function listSheetValues(sql: Sql, runId: number, limit: number): Promise<SheetWithValues[]> {
  const rows = await sql.rows<SheetRow & Values>(
    `SELECT * FROM (SELECT ${COLUMNS}, ${VALUES} FROM press_sheet WHERE run_id = ? AND house_id = ? ORDER BY impression DESC LIMIT ?) newest ORDER BY impression`,
    [runId, sql.house, String(limit)],
  );
  return rows.map(withValues);
}

/** Sheets that are held in memory at a time. */
const SHEETS_AT_A_TIME = 200;

/** All sheets of a run in their order, so many at a time that no run is too long for it. */
export async function* sheetPages(sql: Sql, runId: number): AsyncGenerator<readonly SheetWithValues[]> {
  for (let after = -1; ;) {
    const rows = await sql.rows<SheetRow & Values>(
      `SELECT ${COLUMNS}, ${VALUES} FROM press_sheet WHERE run_id = ? AND house_id = ? AND impression > ? ORDER BY impression LIMIT ?`,
      [runId, sql.house, String(after), String(SHEETS_AT_A_TIME)],
    );
    if (rows.length > 0) yield rows.map(withValues);
    if (rows.length < SHEETS_AT_A_TIME) return;
    after = rows[rows.length - 1].impression;
  }
}

/** Colours of the sheets of production, in their order, NaN where a patch is open: all, or so many evenly among them. */
export async function listProductionColours(
  sql: Sql,
  runId: number,
  most: number,
): Promise<{ readonly impression: number; readonly readMs: number; readonly xyz: Float64Array }[]> {
  const all = await sql.rows<{ readonly id: number }>(
    "SELECT id FROM press_sheet WHERE run_id = ? AND house_id = ? AND phase = 'production' ORDER BY impression",
    [runId, sql.house],
  );
  const step = Math.ceil(all.length / most);
  const chosen = all.filter((_, place) => (all.length - 1 - place) % step === 0).map(({ id }) => id);
  if (chosen.length === 0) return [];
  const rows = await sql.rows<{
    readonly impression: number;
    readonly readMs: number;
    readonly measured: Buffer;
  }>(
    `SELECT impression, read_ms AS readMs, measured FROM press_sheet WHERE house_id = ? AND id IN (${chosen.map(() => '?').join(', ')}) ORDER BY impression`,
    [sql.house, ...chosen],
  );
  return rows.map(({ measured, ...row }) => ({
    ...row,
    xyz: readingOf({ measured, grid: null, spectra: null }).xyz,
  }));
}

/** Sheets of a run that were read as colours or densities alone. */
export async function countWithoutSpectra(sql: Sql, runId: number): Promise<number> {
  const [{ count }] = await sql.rows<{ readonly count: number }>(
    'SELECT COUNT(*) AS count FROM press_sheet WHERE run_id = ? AND house_id = ? AND spectra IS NULL',
    [runId, sql.house],
  );
  return Number(count);
}

/** When the newest sheet of a run was read; null where none was. */
export async function newestReadMs(sql: Sql, runId: number): Promise<number | null> {
  const [row] = await sql.rows<{ readonly readMs: number }>(
    'SELECT read_ms AS readMs FROM press_sheet WHERE run_id = ? AND house_id = ? ORDER BY impression DESC LIMIT 1',
    [runId, sql.house],
  );
  return row?.readMs ?? null;
}

export async function findSheet(
  sql: Sql,
  runId: number,
  impression: number,
): Promise<SheetWithValues | undefined> {
  const [row] = await sql.rows<SheetRow & Values>(
    `SELECT ${COLUMNS}, ${VALUES} FROM press_sheet WHERE run_id = ? AND house_id = ? AND impression = ?`,
    [runId, sql.house, impression],
  );
  return row === undefined ? undefined : withValues(row);
}

export interface SheetToStore extends Omit<SheetRow, 'id'> {
  readonly reading: BarReading;
  /** Row-major patch × 3: ΔE, density, the third figure. */
  readonly figures: Float64Array;
}

/** Stores a sheet, or what it has become now that more of it was read. */
export async function storeSheet(sql: Sql, runId: number, sheet: SheetToStore): Promise<void> {
  const { grid, spectra } = sheet.reading;
  const values = [
    ...[measuredOf(sheet.reading), encodeValues(sheet.figures)],
    ...[
      grid === undefined ? null : JSON.stringify(grid),
      spectra === undefined ? null : encodeValues(spectra),
    ],
    ...[sheet.openPatches, sheet.outside, sheet.judged, sheet.spread],
  ];
  await sql.change(
    `INSERT INTO press_sheet (house_id, run_id, impression, phase, read_ms, measured, figures, grid, spectra, open_patches, outside, judged, spread)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)
     ON DUPLICATE KEY UPDATE measured = VALUES(measured), figures = VALUES(figures), grid = VALUES(grid), spectra = VALUES(spectra),
       open_patches = VALUES(open_patches), outside = VALUES(outside), judged = VALUES(judged), spread = VALUES(spread)`,
    [sql.house, runId, sheet.impression, sheet.phase, sheet.readMs, ...values],
  );
}

/** Puts the sheets of a run into make-ready or production by where production begins. */
export async function movePhases(sql: Sql, runId: number, productionFrom: number): Promise<void> {
  await sql.change(
    "UPDATE press_sheet SET phase = IF(impression >= ?, 'production', 'make-ready') WHERE run_id = ? AND house_id = ?",
    [productionFrom, runId, sql.house],
  );
}

/** Figures of sheets, for analysis. */
export interface SheetFigures extends SheetRow {
  readonly runId: number;
  /** Float32, row-major patch × 3. */
  readonly figures: Float32Array;
}

/** Reads of a run what an analysis needs, and nothing else. @param phased asks for one phase, after the runs; @param timed for a stretch of time. */
export const FIGURES_OF_RUNS = (runs: number, phased: boolean, timed = false): string =>
  `SELECT ${COLUMNS}, run_id AS runId, figures AS block FROM press_sheet
   WHERE house_id = ? AND run_id IN (${new Array<string>(runs).fill('?').join(', ')})${phased ? ' AND phase = ?' : ''}${timed ? ' AND read_ms >= ? AND read_ms < ?' : ''} ORDER BY run_id, impression`;

/** Figures of all sheets of some runs, by run and impression, in one of the phases where one is told. */
export async function listSheetFigures(
  sql: Sql,
  runIds: readonly number[],
  phase: Phase | undefined,
  within?: { readonly fromMs: number; readonly toMs: number },
): Promise<SheetFigures[]> {
  if (runIds.length === 0) return [];
  const rows = await sql.rows<SheetRow & { readonly runId: number; readonly block: Buffer }>(
    FIGURES_OF_RUNS(runIds.length, phase !== undefined, within !== undefined),
    [
      ...[sql.house, ...runIds],
      ...(phase === undefined ? [] : [phase]),
      ...(within === undefined ? [] : [within.fromMs, within.toMs]),
    ],
  );
  return rows.map(({ block, ...row }) => ({ ...row, figures: floatsOf(block) }));
}
