import { Kind, TypeRegistry } from '@sinclair/typebox';
import type { Static, TSchema } from '@sinclair/typebox';
import { Value } from '@sinclair/typebox/value';
import type { ValueError } from '@sinclair/typebox/value';
import { set, useForm } from 'react-hook-form';
import type { Control, DefaultValues, FieldValues, UseFormReturn } from 'react-hook-form';

// One of some words, as endpoints write it.
TypeRegistry.Set<TSchema & { readonly enum: readonly unknown[] }>('Unsafe', (schema, value) =>
  schema.enum.includes(value),
);

/** A body as a form has it before it is whole: what was not chosen yet is undefined. */
type Draft<B> = B extends object ? { readonly [K in keyof B]: Draft<B[K]> | undefined } : B | undefined;

type Texts = Readonly<Record<string, string>>;

interface FormWords<V> {
  /** Values by the paths of the body that they fill, where the names differ. */
  readonly fields?: Texts;
  /** What is said of a value in place of the schema's own words. */
  readonly words?: Texts;
  /** What is wrong between values that are right each by itself, by the value it is said at. */
  readonly also?: (values: V) => Readonly<Record<string, string | undefined>>;
}

export interface BodyForm<V extends FieldValues, B> {
  readonly control: Control<V>;
  readonly values: V;
  readonly setValue: UseFormReturn<V>['setValue'];
  /** Whether what is filled in is a body. */
  readonly ready: boolean;
  /** What is filled in, checked; only while it is ready. */
  readonly body: () => B;
}

/**
 * A form whose values become the body of a route. The route's own schema says which field is wrong and why, so that form
 * and server never differ; fields of a body have the names of their values.
 * @param toBody turns what was typed into the body: numbers from texts, empty texts into what is left out.
 */
export function useBodyForm<V extends FieldValues, S extends TSchema>(
  schema: S,
  first: DefaultValues<V>,
  toBody: (values: V) => Draft<Static<S>>,
  { fields = {}, words = {}, also = () => ({}) }: FormWords<V> = {},
): BodyForm<V, Static<S>> {
  const wrong = (values: V): ReadonlyMap<string, string> => {
    const found = new Map<string, string>();
    for (const problem of problemsOf(schema, toBody(values))) {
      const field = fieldOf(problem.path, fields);
      if (!found.has(field)) found.set(field, words[field] ?? problem.words);
    }
    for (const [field, message] of Object.entries(also(values)))
      if (message !== undefined && !found.has(field)) found.set(field, message);
    return found;
  };
  const form = useForm<V>({
    defaultValues: first,
    mode: 'onChange',
    resolver: (values) => {
      const errors: Record<string, unknown> = {};
      for (const [field, message] of wrong(values)) set(errors, field, { type: 'schema', message });
      return Object.keys(errors).length === 0
        ? { values, errors: {} }
        : { values: {}, errors: errors as never };
    },
  });
  const values = form.watch();
  return {
    control: form.control,
    values,
    setValue: form.setValue,
    // Not by the form's own state, which comes a moment later.
    ready: wrong(values).size === 0,
    body: () => {
      const body = toBody(form.getValues());
      const [problem] = problemsOf(schema, body);
      if (problem !== undefined) throw new Error(`${problem.path}: ${problem.words}`);
      return body as Static<S>;
    },
  };
}

/** The value that fills a path of the body; an entry of a list stands in the value of the list. */
function fieldOf(path: string, fields: Texts): string {
  const plain = path.replace(/\.\d+(\..*)?$/, '');
  return fields[plain] ?? plain;
}

/** What is wrong with a body, by the path of the field, as `duty.days`. */
export function problemsOf(
  schema: TSchema,
  body: unknown,
): readonly { readonly path: string; readonly words: string }[] {
  return [...Value.Errors(schema, body)].flatMap(deepest).map((error) => ({
    path: error.path.slice(1).replaceAll('/', '.'),
    words: wordsOf(error),
  }));
}

/** Of a union that nothing fits, the errors of the alternative that goes furthest. */
function deepest(error: ValueError): ValueError[] {
  const depth = (errors: readonly ValueError[]): number =>
    Math.min(...errors.map(({ path }) => path.split('/').length));
  const branches = error.errors.map((each) => [...each].flatMap(deepest)).filter(({ length }) => length > 0);
  const [best] = branches.sort((a, b) => depth(b) - depth(a));
  return best !== undefined && depth(best) > error.path.split('/').length ? best : [error];
}

function wordsOf({ schema, value }: ValueError): string {
  const { minimum, maximum, maxLength } = schema as Readonly<Record<string, number | undefined>>;
  const unioned = (schema.anyOf as readonly TSchema[] | undefined)?.find(
    ({ [Kind]: kind }) => kind === 'Integer' || kind === 'Number',
  );
  if (unioned !== undefined) return wordsOf({ schema: unioned, value } as ValueError);
  const kind = schema[Kind];
  if (kind === 'Integer' || kind === 'Number') {
    const what = kind === 'Integer' ? 'A whole number' : 'A number';
    return minimum !== undefined && maximum !== undefined
      ? `${what}, ${minimum.toLocaleString('en-GB')} to ${maximum.toLocaleString('en-GB')}`
      : what;
  }
  if (maxLength !== undefined && typeof value === 'string' && value.length > maxLength)
    return `${maxLength} letters at most`;
  return value === '' || value === undefined ? 'Needed' : 'Not as it can be taken';
}
