import type { SpectralGrid } from '@melto/core/spectral/spectralGrid';
import { isDuplicate } from './database.ts';
import type { Sql } from './database.ts';
import { decodeValues, encodeValues } from './valueBlock.ts';

export interface ReadingRow {
  readonly id: number;
  readonly printId: number;
  readonly instrumentId: number | null;
  readonly instrument: string | null;
  readonly source: 'desk' | 'file';
  readonly mode: 'M0' | 'M1' | 'M2' | 'M3';
  readonly startedMs: number;
  readonly finishedMs: number | null;
  readonly early: boolean;
  readonly withdrawnMs: number | null;
  /** JSON of the faults, once the reading is complete. */
  readonly faults: string | null;
}

/** One strip as it was read; spectra, or XYZ where a file had nothing better. */
export interface StripRow {
  readonly page: number;
  readonly strip: number;
  readonly attempt: string;
  readonly reversed: boolean;
  readonly kind: 'spectra' | 'xyz';
  readonly grid: SpectralGrid;
  /** Row-major patch × band (or × 3), in the order of the strip on paper. */
  readonly values: Float64Array;
  readonly readMs: number;
}

const COLUMNS = `r.id, r.print_id AS printId, r.instrument_id AS instrumentId, i.name AS instrument, r.source, r.mode,
  r.started_ms AS startedMs, r.finished_ms AS finishedMs, r.early, r.withdrawn_ms AS withdrawnMs, r.faults
  FROM reading r LEFT JOIN instrument i ON i.id = r.instrument_id`;

type RawReading = Omit<ReadingRow, 'early'> & { readonly early: number };
const readingOf = (row: RawReading): ReadingRow => ({ ...row, early: row.early === 1 });

export async function findReading(sql: Sql, id: number): Promise<ReadingRow | undefined> {
  const [row] = await sql.rows<RawReading>(`SELECT ${COLUMNS} WHERE r.id = ?`, [id]);
  return row === undefined ? undefined : readingOf(row);
}

/** The newest reading of a print that was not withdrawn. */
export async function latestReading(sql: Sql, print: number): Promise<ReadingRow | undefined> {
  const [row] = await sql.rows<RawReading>(
    `SELECT ${COLUMNS} WHERE r.print_id = ? AND r.withdrawn_ms IS NULL ORDER BY r.id DESC LIMIT 1`,
    [print],
  );
  return row === undefined ? undefined : readingOf(row);
}

export interface ReadingOfCondition extends ReadingRow {
  readonly code: string;
  readonly title: string;
  readonly purpose: string;
  readonly patches: number;
  readonly curvesResultId: number | null;
}

export async function listReadings(sql: Sql, condition: number): Promise<ReadingOfCondition[]> {
  const rows = await sql.rows<
    RawReading & {
      code: string;
      title: string;
      purpose: string;
      patches: number;
      curvesResultId: number | null;
    }
  >(
    `SELECT p.code, p.curves_result_id AS curvesResultId, c.title, c.purpose, c.patches, ${COLUMNS} JOIN print p ON p.id = r.print_id JOIN chart c ON c.id = p.chart_id
     WHERE p.condition_id = ? ORDER BY r.id DESC LIMIT 200`,
    [condition],
  );
  return rows.map((row) => ({ ...row, early: row.early === 1 }));
}

export async function insertReading(
  sql: Sql,
  reading: {
    readonly printId: number;
    readonly instrumentId: number | null;
    readonly source: 'desk' | 'file';
    readonly mode: string;
    readonly startedMs: number;
    readonly early: boolean;
  },
  author: number,
): Promise<number> {
  const { id } = await sql.change(
    'INSERT INTO reading (print_id, instrument_id, source, mode, started_ms, early, author_id) VALUES (?, ?, ?, ?, ?, ?, ?)',
    [
      reading.printId,
      reading.instrumentId,
      reading.source,
      reading.mode,
      reading.startedMs,
      reading.early,
      author,
    ],
  );
  return id;
}

/** Stores a pass; false where this attempt was stored before. */
export async function insertStrip(sql: Sql, reading: number, strip: StripRow): Promise<boolean> {
  try {
    await sql.change(
      `INSERT INTO strip_reading (reading_id, page, strip, attempt, reversed, kind, start_nm, step_nm, bands, patch_values, read_ms)
       VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
      [
        reading,
        strip.page,
        strip.strip,
        strip.attempt,
        strip.reversed,
        strip.kind,
        strip.grid.startNm,
        strip.grid.stepNm,
        strip.grid.count,
        encodeValues(strip.values),
        strip.readMs,
      ],
    );
    return true;
  } catch (error) {
    if (isDuplicate(error)) return false;
    throw error;
  }
}

interface RawStrip extends Omit<StripRow, 'grid' | 'values' | 'reversed'> {
  readonly reversed: number;
  readonly startNm: number;
  readonly stepNm: number;
  readonly bands: number;
  readonly patchValues: Buffer;
}

const STRIP = `s.page, s.strip, s.attempt, s.reversed, s.kind, s.start_nm AS startNm, s.step_nm AS stepNm, s.bands,
  s.patch_values AS patchValues, s.read_ms AS readMs FROM strip_reading s`;

function stripOf({ startNm, stepNm, bands, patchValues, reversed, ...row }: RawStrip): StripRow {
  return {
    ...row,
    reversed: reversed === 1,
    grid: { startNm, stepNm, count: bands },
    values: decodeValues(patchValues),
  };
}

/** The strips of a reading, for each the newest pass, by page and strip. */
export async function listStrips(sql: Sql, reading: number): Promise<StripRow[]> {
  const rows = await sql.rows<RawStrip>(
    `SELECT ${STRIP} JOIN (SELECT MAX(id) AS id FROM strip_reading WHERE reading_id = ? GROUP BY page, strip) newest
     ON newest.id = s.id ORDER BY s.page, s.strip`,
    [reading],
  );
  return rows.map(stripOf);
}

/** Certain passes of one strip. */
export async function listPasses(
  sql: Sql,
  reading: number,
  page: number,
  strip: number,
  attempts: readonly string[],
): Promise<StripRow[]> {
  const rows = await sql.rows<RawStrip>(
    `SELECT ${STRIP} WHERE s.reading_id = ? AND s.page = ? AND s.strip = ? AND s.attempt IN (${attempts.map(() => '?').join(', ')})`,
    [reading, page, strip, ...attempts],
  );
  return rows.map(stripOf);
}

export async function finishReading(
  sql: Sql,
  reading: number,
  finishedMs: number | null,
  faults: string | null,
): Promise<void> {
  await sql.change('UPDATE reading SET finished_ms = ?, faults = ? WHERE id = ?', [
    finishedMs,
    faults,
    reading,
  ]);
}

export async function setWithdrawn(sql: Sql, reading: number, withdrawnMs: number | null): Promise<void> {
  await sql.change('UPDATE reading SET withdrawn_ms = ? WHERE id = ?', [withdrawnMs, reading]);
}
