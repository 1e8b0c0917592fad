import { Value } from '@sinclair/typebox/value';
import type { TSchema } from '@sinclair/typebox';
import type { LinkName, ResultRow } from '@melto/store/results';
import type { SpinePicture } from './spinePicture.ts';

/**
 * One kind of result: which link it belongs to, how it is stored, what its spine shows. All that is asked of stored
 * results goes through their kind, so that none is taken for what it is not.
 */
export interface ResultKind<S, D> {
  /** Name of the stored form, in the column of that name. */
  readonly shape: string;
  readonly link: LinkName;
  /** Version of the stored form; a form that changes gets the next one and an entry in `older`. */
  readonly version: number;
  readonly summary: TSchema;
  readonly detail: TSchema;
  /** What made of each older version's summary and detail the next version's. */
  readonly older?: readonly ((stored: Stored<unknown, unknown>) => Stored<unknown, unknown>)[];
  /** The small picture of the spine, and the figures beside it. */
  readonly picture: (stored: Stored<S, D>, reached: Reached | undefined) => LinkPicture;
  /** A report and a slip can be made of it. */
  readonly reports: boolean;
}

export interface Stored<S, D> {
  readonly summary: S;
  readonly detail: D;
}

/** What a fresh sheet said of a result. */
export interface Reached {
  readonly verdict: string;
  readonly summary: unknown;
  readonly detail: unknown;
}

export interface LinkPicture {
  readonly picture?: SpinePicture;
  readonly figures?: string;
}

/** The summary of a stored result. @throws where the row is of another kind, or not stored as that kind is. */
export function summaryOf<S>(kind: ResultKind<S, never>, row: Omit<ResultRow, 'author' | 'validDays'>): S {
  return storedOf(kind as unknown as ResultKind<S, unknown>, row, undefined).summary;
}

/** All of a stored result. */
export function storedOf<S, D>(
  kind: ResultKind<S, D>,
  row: Omit<ResultRow, 'author' | 'validDays'>,
  detail: string | undefined,
): Stored<S, D> {
  if (row.shape !== kind.shape)
    throw new Error(`result ${row.id} is a ${row.shape}, expected a ${kind.shape}`);
  let stored: Stored<unknown, unknown> = {
    summary: JSON.parse(row.summary) as unknown,
    detail: detail === undefined ? undefined : (JSON.parse(detail) as unknown),
  };
  if (row.shapeVersion > kind.version)
    throw new Error(
      `result ${row.id} was stored by a newer Melto (form ${row.shapeVersion} of ${kind.shape})`,
    );
  for (let version = row.shapeVersion; version < kind.version; version++) {
    const next = kind.older?.[version - 1];
    if (next === undefined) throw new Error(`nothing leads on from form ${version} of ${kind.shape}`);
    stored = next(stored);
  }
  check(kind.summary, stored.summary, `summary of result ${row.id}`);
  if (detail !== undefined) check(kind.detail, stored.detail, `detail of result ${row.id}`);
  return stored as Stored<S, D>;
}

/** What goes into the columns of a new result of a kind. @throws where it is not what the kind stores. */
export function toStore<S, D>(
  kind: ResultKind<S, D>,
  { summary, detail }: Stored<S, D>,
): {
  readonly link: LinkName;
  readonly shape: string;
  readonly shapeVersion: number;
  readonly summary: S;
  readonly detail: D;
} {
  check(kind.summary, summary, `summary of a new ${kind.shape}`);
  check(kind.detail, detail, `detail of a new ${kind.shape}`);
  return { link: kind.link, shape: kind.shape, shapeVersion: kind.version, summary, detail };
}

function check(schema: TSchema, value: unknown, what: string): void {
  if (Value.Check(schema, value)) return;
  const first = Value.Errors(schema, value).First();
  throw new Error(`${what}: ${first?.path ?? ''} ${first?.message ?? 'is not as it should be'}`);
}
