import { Type } from '@sinclair/typebox';
import type { TSchema, TUnsafe } from '@sinclair/typebox';

// Pieces of the forms in which results are stored. What core computes keeps core's own type; its form is checked as deep
// as a reader relies on it.

export const NUMBERS = Type.Array(Type.Number());
export const ROWS_OF_NUMBERS = Type.Array(NUMBERS);
export const WORDS = Type.Array(Type.String());
export const VERDICT = Type.Union(
  ['conforms', 'near', 'does-not-conform', 'not-judged'].map((word) => Type.Literal(word)),
);
export const ERRORS = Type.Object({
  count: Type.Number(),
  mean: Type.Number(),
  p95: Type.Number(),
  largest: Type.Number(),
});

/** A form that is read as a type of core's. */
export function formOf<T>(schema: TSchema): TUnsafe<T> {
  return Type.Unsafe<T>(schema);
}

/** A value that may be missing where JSON has no word for it. */
export function orNull(schema: TSchema): TSchema {
  return Type.Union([schema, Type.Null()]);
}

/** What a profile prints; profiles from before it was worked out lack it. */
export const GAMUT = Type.Optional(Type.Object({ volume: Type.Number(), white: NUMBERS, black: NUMBERS }));
