import type { Sql } from './database.ts';

/** A profile that stands as a result, by what a shelf sorts and finds it by. */
export interface ShelfRow {
  readonly id: number;
  readonly conditionId: number;
  readonly shape: string;
  readonly shapeVersion: number;
  readonly version: number;
  /** JSON of what lists show of it. */
  readonly summary: string;
  readonly madeMs: number;
  readonly note: string;
  readonly device: string;
  readonly stock: string;
  readonly mode: string;
  readonly label: string;
  readonly inkSet: string;
  /** JSON of the process of its device. */
  readonly process: string;
  /** In force on how many conditions: its own, and those that borrow it. */
  readonly inForceOn: number;
  /** Digest of its file, the same for the same bytes. */
  readonly digest: string;
}

/** Profiles of conditions that are neither archived nor deleted, the newest first. */
export function listShelf(sql: Sql, limit: number): Promise<ShelfRow[]> {
  return sql.rows(
    `SELECT r.id, r.condition_id AS conditionId, r.shape, r.shape_version AS shapeVersion, r.version, r.summary, r.made_ms AS madeMs, r.note,
       d.name AS device, s.name AS stock, c.mode, c.label, c.ink_set AS inkSet, d.process, LOWER(HEX(x.sha256)) AS digest,
       (SELECT COUNT(*) FROM condition_head h WHERE h.result_id = r.id) AS inForceOn
     FROM result r JOIN printing_condition c ON c.id = r.condition_id JOIN device d ON d.id = c.device_id JOIN stock s ON s.id = c.stock_id
       JOIN result_file f ON f.result_id = r.id AND f.role = 'profile' JOIN file x ON x.id = f.file_id
     WHERE r.house_id = ? AND r.link = 'profile' AND c.archived_ms IS NULL AND c.deleted_ms IS NULL ORDER BY r.id DESC LIMIT ?`,
    [sql.house, String(limit)],
  );
}
