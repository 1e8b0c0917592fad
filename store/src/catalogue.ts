import type { Sql } from './database.ts';

/** A condition with the profile that is in force on it, and its best conformity check. */
export interface CatalogueDataRow {
  readonly conditionId: number;
  readonly device: string;
  readonly stock: string;
  readonly mode: string;
  readonly label: string;
  readonly inkSet: string;
  /** JSON of what is known of the stock, or null. */
  readonly stockFacts: string | null;
  readonly id: number;
  readonly shape: string;
  readonly shapeVersion: number;
  readonly version: number;
  readonly note: string;
  readonly summary: string;
  readonly madeMs: number;
  readonly bestId: number | null;
  /** Mean ΔE00 of its patches. */
  readonly bestMean: number | null;
  readonly bestMs: number | null;
}

/** Conditions with a profile in force that are neither archived nor deleted, by device and stock. */
export function listCatalogue(sql: Sql, limit: number): Promise<CatalogueDataRow[]> {
  return sql.rows(
    `WITH checks AS (
       SELECT k.condition_id, k.id, k.made_ms, CAST(JSON_VALUE(k.summary, '$.mean') AS DOUBLE) AS mean,
         ROW_NUMBER() OVER (PARTITION BY k.condition_id ORDER BY CAST(JSON_VALUE(k.summary, '$.mean') AS DOUBLE), k.id DESC) AS place
       FROM result k WHERE k.house_id = ? AND k.link = 'conformity' AND JSON_VALUE(k.summary, '$.mean') IS NOT NULL
     )
     SELECT c.id AS conditionId, d.name AS device, s.name AS stock, c.mode, c.label, c.ink_set AS inkSet, s.facts AS stockFacts,
       r.id, r.shape, r.shape_version AS shapeVersion, r.version, r.note, r.summary, r.made_ms AS madeMs,
       b.id AS bestId, b.mean AS bestMean, b.made_ms AS bestMs
     FROM printing_condition c JOIN device d ON d.id = c.device_id JOIN stock s ON s.id = c.stock_id
       JOIN condition_head h ON h.condition_id = c.id AND h.link = 'profile' JOIN result r ON r.id = h.result_id
       LEFT JOIN checks b ON b.condition_id = c.id AND b.place = 1
     WHERE c.house_id = ? AND c.archived_ms IS NULL AND c.deleted_ms IS NULL ORDER BY d.name, s.name, c.id LIMIT ?`,
    [sql.house, sql.house, String(limit)],
  );
}
