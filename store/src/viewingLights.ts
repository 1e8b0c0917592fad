import type { Sql } from './database.ts';
import { updateFound } from './updateFound.ts';

/** A light that the house has measured. */
export interface ViewingLightRow {
  readonly id: number;
  readonly name: string;
  readonly note: string;
  readonly fileName: string;
  readonly startNm: number;
  readonly stepNm: number;
  /** JSON: relative power by wavelength. */
  readonly power: string;
  /** What the latest brightener study told of its ultraviolet; null before one. */
  readonly uvShare: number | null;
  readonly uvLow: number | null;
  readonly uvHigh: number | null;
  readonly uvMs: number | null;
  readonly madeMs: number;
  readonly awayMs: number | null;
}

const COLUMNS =
  'id, name, note, file_name AS fileName, start_nm AS startNm, step_nm AS stepNm, power, uv_share AS uvShare, uv_low AS uvLow, uv_high AS uvHigh, uv_ms AS uvMs, made_ms AS madeMs, away_ms AS awayMs FROM viewing_light';

/** Lights of the house by name, those that were put away included. */
export function listViewingLights(sql: Sql, limit: number): Promise<ViewingLightRow[]> {
  return sql.rows(`SELECT ${COLUMNS} WHERE house_id = ? ORDER BY name, id LIMIT ?`, [
    sql.house,
    String(limit),
  ]);
}

export async function findViewingLight(sql: Sql, id: number): Promise<ViewingLightRow | undefined> {
  const [row] = await sql.rows<ViewingLightRow>(`SELECT ${COLUMNS} WHERE id = ? AND house_id = ?`, [
    id,
    sql.house,
  ]);
  return row;
}

export async function insertViewingLight(
  sql: Sql,
  light: Pick<ViewingLightRow, 'name' | 'fileName' | 'startNm' | 'stepNm'> & {
    readonly power: readonly number[];
  },
  nowMs: number,
): Promise<number> {
  const { id } = await sql.change(
    'INSERT INTO viewing_light (house_id, name, file_name, start_nm, step_nm, power, author_id, made_ms) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
    [
      ...[sql.house, light.name, light.fileName, light.startNm, light.stepNm],
      ...[JSON.stringify(light.power), sql.person, nowMs],
    ],
  );
  return id;
}

/** Name and note; false where there is no such light. */
export function changeViewingLight(
  sql: Sql,
  id: number,
  { name, note }: Pick<ViewingLightRow, 'name' | 'note'>,
): Promise<boolean> {
  return updateFound(sql, 'viewing_light', id, 'name = ?, note = ?', [name, note]);
}

/** False where there is no such light. */
export function setViewingLightAway(sql: Sql, id: number, awayMs: number | null): Promise<boolean> {
  return updateFound(sql, 'viewing_light', id, 'away_ms = ?', [awayMs]);
}

/** What a study told of the ultraviolet of a light; false where there is no such light. */
export function setLightUltraviolet(
  sql: Sql,
  id: number,
  {
    share,
    low,
    high,
    ms,
  }: { readonly share: number; readonly low: number; readonly high: number; readonly ms: number },
): Promise<boolean> {
  return updateFound(sql, 'viewing_light', id, 'uv_share = ?, uv_low = ?, uv_high = ?, uv_ms = ?', [
    share,
    low,
    high,
    ms,
  ]);
}
