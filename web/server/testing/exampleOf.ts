import type { TSchema } from '@sinclair/typebox';

/** Words that fit patterns of schemas: of papers, lights and others. */
const WORDS = ['xxxxxxxxxxxx', 'a4', 'D65', '1', '#808080'];

/**
 * A value that fits a schema, with every field that it knows.
 * @param own numbers for a field of a name, where there are some that matter.
 */
export function exampleOf(
  schema: TSchema,
  own: (field: string) => number[] | undefined,
  field = '',
): unknown {
  const form = schema as Record<string, unknown> & TSchema;
  const given = own(field);
  if (form['type'] === 'array') {
    const least = Math.max(1, Number(form['minItems'] ?? 1));
    return (
      enough(own(field), least) ??
      Array.from({ length: least }, () => exampleOf(form['items'] as TSchema, own, field))
    );
  }
  if (form['type'] === 'object' || form['properties'] !== undefined) {
    const properties = (form['properties'] ?? {}) as Record<string, TSchema>;
    return Object.fromEntries(
      Object.entries(properties).map(([name, inner]) => [name, exampleOf(inner, own, name)]),
    );
  }
  if (Array.isArray(form['enum'])) return form['enum'][0];
  if (form['const'] !== undefined) return form['const'];
  const [first] = (form['anyOf'] ?? form['oneOf'] ?? []) as TSchema[];
  if (first !== undefined) return exampleOf(first, own, field);
  if (given !== undefined) return given[0];
  switch (form['type']) {
    case 'integer':
    case 'number':
      return (
        Number(form['minimum'] ?? form['exclusiveMinimum'] ?? 1) +
        (form['exclusiveMinimum'] === undefined ? 0 : 1)
      );
    case 'boolean':
      return true;
    case 'null':
      return null;
    default:
      return WORDS.find((word) => new RegExp(String(form['pattern'] ?? '')).test(word)) ?? WORDS[0];
  }
}

/** As many as are wanted; what is missing is of nobody. */
function enough(own: readonly number[] | undefined, least: number): number[] | undefined {
  return own === undefined ? undefined : Array.from({ length: least }, (_, i) => own[i] ?? 900_000 + i);
}
