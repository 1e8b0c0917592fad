import { AsyncLocalStorage } from 'node:async_hooks';
import mysql from 'mysql2/promise';
import type { Pool, PoolConnection, ResultSetHeader, RowDataPacket } from 'mysql2/promise';

export type SqlValue = string | number | boolean | null | Buffer;

/** The house whose rows are seen and changed, and the person in whose name they are. */
export interface Acting {
  readonly house: number;
  readonly person: number;
}

/** What repositories need: rows and changes, of one house, in the name of one person. */
export interface Sql extends Acting {
  rows<T>(sql: string, values?: readonly SqlValue[]): Promise<T[]>;
  /** Runs a change; gives the new id and the number of rows concerned. */
  change(
    sql: string,
    values?: readonly SqlValue[],
  ): Promise<{ readonly id: number; readonly affected: number }>;
}

export interface Database extends Sql {
  /**
   * Runs `work` in one transaction and rolls back where it throws; within a transaction it joins that one. What a
   * deadlock or a lock that was waited for too long has undone is run again, so `work` must bear being run twice.
   */
  transaction<T>(work: (sql: Database) => Promise<T>): Promise<T>;
  /** The same database for another house or person. */
  as(acting: Acting): Database;
  close(): Promise<void>;
}

const CONNECTIONS = 10;
const MOST_TRIES = 8;
/** Longest wait for a row that another transaction has locked. */
const LOCK_WAIT_S = 15;

/** Set while a transaction runs: whoever then asks the pool would wait for a connection that may never be free. */
const within = new AsyncLocalStorage<true>();

export function openDatabase(url: string, acting: Acting = { house: 1, person: 1 }): Database {
  const pool = mysql.createPool({
    uri: url,
    connectionLimit: CONNECTIONS,
    charset: 'utf8mb4',
    timezone: 'Z',
    supportBigNumbers: true,
  });
  pool.on('connection', (connection) => {
    // Each statement sees what is committed by then: whoever has waited for a lock must not read what was before.
    void connection.query(
      `SET SESSION tx_isolation = 'READ-COMMITTED', SESSION innodb_lock_wait_timeout = ${LOCK_WAIT_S}`,
    );
  });
  return overPool(pool, acting);
}

function overPool(pool: Pool, acting: Acting): Database {
  const plain = bind(pool, acting);
  return {
    ...acting,
    rows: (sql, values) => (refuseSecond(), plain.rows(sql, values)),
    change: (sql, values) => (refuseSecond(), plain.change(sql, values)),
    transaction: (work) => (refuseSecond(), inTransaction(pool, acting, work)),
    as: (other) => overPool(pool, other),
    close: () => pool.end(),
  };
}

function refuseSecond(): void {
  if (within.getStore() === true)
    throw new Error('a second connection was asked for inside a transaction: use the one it carries');
}

async function inTransaction<T>(pool: Pool, acting: Acting, work: (sql: Database) => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries++) {
    const connection = await pool.getConnection();
    try {
      await connection.beginTransaction();
      const value = await within.run(true, () => work(overConnection(connection, acting)));
      await connection.commit();
      return value;
    } catch (error) {
      await connection.rollback().catch(() => connection.destroy());
      if (!isContention(error) || tries === MOST_TRIES) throw error;
    } finally {
      connection.release();
    }
    await pause(Math.random() * 20 * 2 ** tries);
  }
}

function overConnection(connection: PoolConnection, acting: Acting): Database {
  const self: Database = {
    ...bind(connection, acting),
    transaction: (work) => work(self),
    as: (other) => overConnection(connection, other),
    close: () => Promise.reject(new Error('a transaction does not close its database')),
  };
  return self;
}

function pause(ms: number): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve, ms));
}

function bind(target: Pool | PoolConnection, acting: Acting): Sql {
  return {
    ...acting,
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

// MariaDB's numbers of errors; mysql2 names them from another table.
const DUPLICATE_ENTRY = 1062;
const DEADLOCK = 1213;
const LOCK_WAIT_TIMEOUT = 1205;

export function errorNumber(error: unknown): number | undefined {
  return error instanceof Error && 'errno' in error ? Number(error.errno) : undefined;
}

export function isDuplicate(error: unknown): boolean {
  return errorNumber(error) === DUPLICATE_ENTRY;
}

/** Whether others were in the way, so that the same work may well succeed when it is run again. */
export function isContention(error: unknown): boolean {
  const number = errorNumber(error);
  return number === DEADLOCK || number === LOCK_WAIT_TIMEOUT;
}
