import { Type } from '@sinclair/typebox';
import type { TObject, TSchema, TUnsafe } from '@sinclair/typebox';
import type { Role } from '@melto/core/people/role';

/** Who may call a route: people of the house from a role on, or anyone, signed in or not. */
export type Who = Role | 'anyone';

/** The body of a request that is a file: its bytes as they are. */
export interface FileBody {
  readonly file: true;
  readonly mostBytes: number;
}

/**
 * One route of the API, from which its handler, the check of what comes in, its published description and the
 * browser's call are made.
 */
export interface Endpoint<
  Params extends TObject = TObject,
  Query extends TObject = TObject,
  Body extends TSchema | FileBody | undefined = TSchema | FileBody | undefined,
  Answer extends TSchema | undefined = TSchema | undefined,
> {
  readonly method: 'GET' | 'POST' | 'PUT';
  /** With its parameters in braces. */
  readonly path: string;
  readonly says: string;
  /** The least role that may call it. */
  readonly who: Who;
  readonly params: Params;
  readonly query: Query;
  readonly body: Body;
  /** What it answers as JSON; undefined where it answers a file or a stream. */
  readonly answer: Answer;
  /** What instruments tell by themselves, over and over: no act of a person, and not in the record. */
  readonly byItself?: true;
  /** Bytes of JSON that it takes, where these are more than usual. */
  readonly mostBytes?: number;
}

const NONE = Type.Object({}, { additionalProperties: false });

interface Given<P extends TObject, Q extends TObject, B, A> {
  readonly path: string;
  readonly says: string;
  readonly who: Who;
  readonly params?: P;
  readonly query?: Q;
  readonly body?: B;
  readonly answer?: A;
  readonly byItself?: true;
  readonly mostBytes?: number;
}

type Empty = typeof NONE;

function endpoint<
  P extends TObject,
  Q extends TObject,
  B extends TSchema | FileBody | undefined,
  A extends TSchema | undefined,
>(
  method: Endpoint['method'],
  { path, says, who, params, query, body, answer, byItself, mostBytes }: Given<P, Q, B, A>,
): Endpoint<P, Q, B, A> {
  return {
    ...{ method, path, says, who },
    params: params ?? (NONE as unknown as P),
    query: query ?? (NONE as unknown as Q),
    body: body as B,
    answer: answer as A,
    byItself,
    mostBytes,
  };
}

/** A route that tells something and changes nothing. */
export function reads<
  P extends TObject = Empty,
  Q extends TObject = Empty,
  A extends TSchema | undefined = undefined,
>(given: Omit<Given<P, Q, undefined, A>, 'body'>): Endpoint<P, Q, undefined, A> {
  return endpoint<P, Q, undefined, A>('GET', given);
}

/** A route that makes something new each time. */
export function makes<
  P extends TObject = Empty,
  Q extends TObject = Empty,
  B extends TSchema | FileBody | undefined = undefined,
  A extends TSchema = TSchema,
>(given: Given<P, Q, B, A> & { readonly answer: A }): Endpoint<P, Q, B, A> {
  return endpoint<P, Q, B, A>('POST', given);
}

/** A route that sets something as it is told, however often. */
export function sets<
  P extends TObject = Empty,
  Q extends TObject = Empty,
  B extends TSchema | undefined = undefined,
  A extends TSchema = TSchema,
>(given: Given<P, Q, B, A> & { readonly answer: A }): Endpoint<P, Q, B, A> {
  return endpoint<P, Q, B, A>('PUT', given);
}

/** An object of the services' own type: what of it is promised stands in the schema. */
export function answers<T>(schema: TSchema = Type.Object({})): TUnsafe<T> {
  return Type.Unsafe<T>(schema);
}

/** An object that knows no other fields. */
export function strict<P extends Parameters<typeof Type.Object>[0]>(fields: P): TObject<P> {
  return Type.Object(fields, { additionalProperties: false });
}

/** One of some words. */
export function oneOf<const T extends readonly (string | number)[]>(words: T): TUnsafe<T[number]> {
  return Type.Unsafe<T[number]>({ enum: [...words] });
}

export const DONE = answers<Record<string, never>>();
export const MADE = answers<{ readonly id: number }>(Type.Object({ id: Type.Integer() }));
