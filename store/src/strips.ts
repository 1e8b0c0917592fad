import type { SpectralGrid } from '@melto/core/spectral/spectralGrid';
import { isDuplicate } from './database.ts';
import type { Sql } from './database.ts';
import { decodeValues, encodeValues } from './valueBlock.ts';

/** One strip as it was read; spectra, or XYZ where a file had nothing better. */
export interface StripRow {
  readonly page: number;
  readonly strip: number;
  readonly attempt: string;
  readonly reversed: boolean;
  readonly kind: 'spectra' | 'xyz';
  readonly grid: SpectralGrid;
  /** Row-major patch × band (or × 3), in the order of the strip on paper; NaN where a patch is missing. */
  readonly values: Float64Array;
  readonly readMs: number;
}

/** Values of each patch of a strip: its bands, or X, Y, Z. */
export function valuesPerPatch({ kind, grid }: Pick<StripRow, 'kind' | 'grid'>): number {
  return kind === 'xyz' ? 3 : grid.count;
}

/** Patches that a strip lacks. */
export function missingPatches(strip: StripRow): number {
  const width = valuesPerPatch(strip);
  return strip.values.reduce(
    (missing, value, i) => missing + (i % width === 0 && Number.isNaN(value) ? 1 : 0),
    0,
  );
}

/** Stores a pass; false where this attempt was stored before. */
export async function insertStrip(sql: Sql, reading: number, strip: StripRow): Promise<boolean> {
  try {
    await sql.change(
      `INSERT INTO strip_reading (house_id, reading_id, page, strip, attempt, reversed, kind, start_nm, step_nm, bands, patch_values, missing, read_ms, author_id)
       VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
      [
        sql.house,
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
        missingPatches(strip),
        strip.readMs,
        sql.person,
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
    `SELECT ${STRIP} JOIN (SELECT MAX(id) AS id FROM strip_reading WHERE reading_id = ? AND house_id = ? GROUP BY page, strip) newest
     ON newest.id = s.id ORDER BY s.page, s.strip`,
    [reading, sql.house],
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
    `SELECT ${STRIP} WHERE s.reading_id = ? AND s.house_id = ? AND s.page = ? AND s.strip = ? AND s.attempt IN (${attempts.map(() => '?').join(', ')})`,
    [reading, sql.house, page, strip, ...attempts],
  );
  return rows.map(stripOf);
}

/** How many strips of a page were read whole, in the reading of its print that has the most and was not withdrawn. */
export async function mostStripsRead(sql: Sql, print: number, page: number): Promise<number> {
  const [row] = await sql.rows<{ most: number | null }>(
    `SELECT MAX(n) AS most FROM (SELECT COUNT(DISTINCT s.strip) AS n FROM strip_reading s JOIN reading r ON r.id = s.reading_id
     WHERE r.print_id = ? AND r.house_id = ? AND r.withdrawn_ms IS NULL AND s.page = ? AND s.missing = 0 GROUP BY r.id) each_reading`,
    [print, sql.house, page],
  );
  return Number(row?.most ?? 0);
}
