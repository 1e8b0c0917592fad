import type { Sql } from './database.ts';

/** A picture without its pixels. */
export interface PictureRow {
  readonly id: number;
  readonly name: string;
  readonly width: number;
  readonly height: number;
  readonly madeMs: number;
}

const COLUMNS = 'id, name, width, height, made_ms AS madeMs';

/** Pictures of a condition that were not removed, or the house's own for null, the oldest first. */
export function listPictures(sql: Sql, condition: number | null): Promise<PictureRow[]> {
  return sql.rows(
    `SELECT ${COLUMNS} FROM picture WHERE house_id = ? AND condition_id <=> ? AND removed_ms IS NULL ORDER BY id`,
    [sql.house, condition],
  );
}

/** The house's logo, the newest where there are several; undefined where it has none. */
export async function findLogo(sql: Sql): Promise<PictureRow | undefined> {
  return (await listPictures(sql, null)).at(-1);
}

export async function findPicture(
  sql: Sql,
  id: number,
): Promise<(PictureRow & { readonly conditionId: number | null; readonly png: Uint8Array }) | undefined> {
  const [row] = await sql.rows<PictureRow & { conditionId: number | null; png: Buffer }>(
    `SELECT ${COLUMNS}, condition_id AS conditionId, png FROM picture WHERE id = ? AND house_id = ?`,
    [id, sql.house],
  );
  return row;
}

export async function insertPicture(
  sql: Sql,
  picture: Omit<PictureRow, 'id'> & { readonly conditionId: number | null; readonly png: Uint8Array },
): Promise<number> {
  const { id } = await sql.change(
    'INSERT INTO picture (house_id, condition_id, name, width, height, png, author_id, made_ms) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
    [
      sql.house,
      picture.conditionId,
      picture.name,
      picture.width,
      picture.height,
      Buffer.from(picture.png),
      sql.person,
      picture.madeMs,
    ],
  );
  return id;
}

/** Takes a picture off, or puts it back. */
export async function setPictureRemoved(sql: Sql, id: number, removedMs: number | null): Promise<void> {
  await sql.change('UPDATE picture SET removed_ms = ? WHERE id = ? AND house_id = ?', [
    removedMs,
    id,
    sql.house,
  ]);
}
