import mysql from 'mysql2/promise';
import type { Pool, PoolConnection, ResultSetHeader, RowDataPacket } from 'mysql2/promise';

export type SqlValue = string | number | boolean | null | Buffer;

/** What repositories need: rows, changes. Inside a transaction it is bound to its connection. */
export interface Sql {
  rows<T>(sql: string, values?: readonly SqlValue[]): Promise<T[]>;
  /** Runs a change; gives the new id and the number of rows concerned. */
  change(
    sql: string,
    values?: readonly SqlValue[],
  ): Promise<{ readonly id: number; readonly affected: number }>;
}

export interface Database extends Sql {
  /** Runs `work` in one transaction; rolls back where it throws. */
  transaction<T>(
    work: (sql: Sql) => Promise<T>,
    isolation?: 'REPEATABLE READ' | 'READ COMMITTED',
  ): Promise<T>;
  close(): Promise<void>;
}

export function openDatabase(url: string): Database {
  const pool: Pool = mysql.createPool({
    uri: url,
    connectionLimit: 8,
    charset: 'utf8mb4',
    timezone: 'Z',
    supportBigNumbers: true,
  });
  return {
    ...bind(pool),
    async transaction(work, isolation = 'REPEATABLE READ') {
      const connection = await pool.getConnection();
      try {
        await connection.query(`SET TRANSACTION ISOLATION LEVEL ${isolation}`);
        await connection.beginTransaction();
        const value = await work(bind(connection));
        await connection.commit();
        return value;
      } catch (error) {
        await connection.rollback();
        throw error;
      } finally {
        connection.release();
      }
    },
    close: () => pool.end(),
  };
}

function bind(target: Pool | PoolConnection): Sql {
  return {
    async rows<T>(sql: string, values: readonly SqlValue[] = []) {
      const [rows] = await target.execute<RowDataPacket[]>(sql, [...values]);
      return rows as unknown as T[];
    },
    async change(sql, values = []) {
      const [header] = await target.execute<ResultSetHeader>(sql, [...values]);
      return { id: header.insertId, affected: header.affectedRows };
    },
  };
}

/** MariaDB's number of a unique key that is taken; mysql2 names errors from another table. */
const DUPLICATE_ENTRY = 1062;

export function isDuplicate(error: unknown): boolean {
  return error instanceof Error && 'errno' in error && error.errno === DUPLICATE_ENTRY;
}
