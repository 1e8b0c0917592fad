import { findHead, findResult } from '@melto/store/results';
import type { HeadRow, ResultRow, WholeResultRow } from '@melto/store/results';
import type { Context } from '../kernel/context.ts';
import { notFound } from '../kernel/problem.ts';
import { storedOf } from './resultKind.ts';
import type { ResultKind, Stored } from './resultKind.ts';

export interface StoredResult<S, D> extends Stored<S, D> {
  readonly row: ResultRow;
}

/** A result of a kind with all it holds; not found where the id is of another kind. */
export async function storedResult<S, D>(
  { database }: Context,
  id: number,
  kind: ResultKind<S, D>,
): Promise<StoredResult<S, D>> {
  const row = await findResult(database, id);
  if (row === undefined || row.shape !== kind.shape) throw notFound(`${kind.shape.replace('-', ' ')} ${id}`);
  return storedAs(row, kind);
}

/** What a row of a kind holds. */
export function storedAs<S, D>(row: WholeResultRow, kind: ResultKind<S, D>): StoredResult<S, D> {
  return { row, ...storedOf(kind, row, row.detail) };
}

/** A result of any kind. */
export async function resultRow({ database }: Context, id: number): Promise<WholeResultRow> {
  const row = await findResult(database, id);
  if (row === undefined) throw notFound(`result ${id}`);
  return row;
}

/** The result of a kind that is in force on a condition, with all it holds. */
export async function storedHead<S, D>(
  context: Context,
  condition: number,
  kind: ResultKind<S, D>,
): Promise<(StoredResult<S, D> & { readonly row: HeadRow }) | undefined> {
  const head = await findHead(context.database, condition, kind.link);
  if (head === undefined || head.shape !== kind.shape) return undefined;
  const { summary, detail } = await storedResult(context, head.id, kind);
  return { row: head, summary, detail };
}
