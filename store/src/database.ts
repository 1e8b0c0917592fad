import { AsyncLocalStorage } from 'node:async_hooks';
import type { PoolConnection, ResultSetHeader, RowDataPacket } from 'mysql2/promise';
import { DatabaseNodes, isLost } from './databaseNodes.ts';

export type SqlValue = string | number | boolean | null | Buffer;

/** The house whose rows are seen and changed, and the person in whose name they are. */
export interface Acting {
  readonly house: number;
  readonly person: number;
}

/** What repositories need: rows and changes, of one house, in the name of one person. */
export interface Sql extends Acting {
  /** Whether several nodes hold the database: a lock is then known to one of them only, see `lockRow`. */
  readonly cluster: boolean;
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

const MOST_TRIES = 8;

/** Set while a transaction runs: whoever then asks the pool would wait for a connection that may never be free. */
const within = new AsyncLocalStorage<true>();

/** @param url of one database, or of a cluster: `nodesOf`. */
export function openDatabase(url: string, acting: Acting = { house: 1, person: 1 }): Database {
  return overNodes(new DatabaseNodes(url), acting);
}

function overNodes(nodes: DatabaseNodes, acting: Acting): Database {
  return {
    ...acting,
    cluster: nodes.count > 1,
    rows: (sql, values) => (refuseSecond(), again(nodes, () => nodes.use((one) => rowsOf(one, sql, values)))),
    // What was sent to a node that is lost may have been done.
    change: (sql, values) => (
      refuseSecond(),
      again(undefined, () => nodes.use((one) => changeOf(one, sql, values)))
    ),
    transaction: (work) => (refuseSecond(), inTransaction(nodes, acting, work)),
    as: (other) => overNodes(nodes, other),
    close: () => nodes.end(),
  };
}

function refuseSecond(): void {
  if (within.getStore() === true)
    throw new Error('a second connection was asked for inside a transaction: use the one it carries');
}

/** Tries again what others were in the way of; with `nodes`, also what can be asked of another node. */
async function again<T>(nodes: DatabaseNodes | undefined, work: () => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries++) {
    try {
      return await work();
    } catch (error) {
      const elsewhere = nodes !== undefined && nodes.count > 1 && isLost(error);
      if (tries === MOST_TRIES || !(isContention(error) || elsewhere)) throw error;
    }
    await pause(Math.random() * 20 * 2 ** tries);
  }
}

async function inTransaction<T>(
  nodes: DatabaseNodes,
  acting: Acting,
  work: (sql: Database) => Promise<T>,
): Promise<T> {
  // Once its end was asked for, nobody knows whether a node that is lost has kept it.
  let ending = false;
  return again(nodes, () => {
    ending = false;
    return nodes.use(async (connection) => {
      try {
        await connection.beginTransaction();
        const value = await within.run(true, () => work(overConnection(connection, acting, nodes.count > 1)));
        ending = true;
        await connection.commit();
        return value;
      } catch (error) {
        if (ending && isLost(error)) throw new OutcomeUnknown(error);
        await connection.rollback().catch(() => connection.destroy());
        throw error;
      }
    });
  });
}

/** A transaction whose end was asked for and not answered: done or not, and not to be run again without knowing. */
export class OutcomeUnknown extends Error {
  constructor(cause: unknown) {
    super('the database was lost while it ended a transaction', { cause });
  }
}

function overConnection(connection: PoolConnection, acting: Acting, cluster: boolean): Database {
  const self: Database = {
    ...acting,
    cluster,
    rows: (sql, values) => rowsOf(connection, sql, values),
    change: (sql, values) => changeOf(connection, sql, values),
    transaction: (work) => work(self),
    as: (other) => overConnection(connection, other, cluster),
    close: () => Promise.reject(new Error('a transaction does not close its database')),
  };
  return self;
}

function pause(ms: number): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve, ms));
}

async function rowsOf<T>(
  connection: PoolConnection,
  sql: string,
  values: readonly SqlValue[] = [],
): Promise<T[]> {
  const [rows] = await connection.execute<RowDataPacket[]>(sql, [...values]);
  return rows as unknown as T[];
}

async function changeOf(
  connection: PoolConnection,
  sql: string,
  values: readonly SqlValue[] = [],
): Promise<{ readonly id: number; readonly affected: number }> {
  const [header] = await connection.execute<ResultSetHeader>(sql, [...values]);
  return { id: header.insertId, affected: header.affectedRows };
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
