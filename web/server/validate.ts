import { Ajv } from 'ajv';
import type { ErrorObject, ValidateFunction } from 'ajv';
import type { TSchema } from '@sinclair/typebox';
import { Problem } from '@melto/services/kernel/problem';

const ajv = new Ajv({ allErrors: false, strict: false });
/** For addresses, whose values are all text. */
const coercing = new Ajv({ allErrors: false, strict: false, coerceTypes: true });
const compiled = new WeakMap<TSchema, ValidateFunction>();

function validator(schema: TSchema, by: Ajv): ValidateFunction {
  const known = compiled.get(schema);
  if (known !== undefined) return known;
  const made = by.compile(schema);
  compiled.set(schema, made);
  return made;
}

/** A value that fits its schema, or a refusal that names the field. */
export function valid(schema: TSchema, value: unknown): unknown {
  const validate = validator(schema, ajv);
  if (!validate(value)) throw wrong(validate.errors?.[0]);
  return value;
}

/** Values of an address: numbers and switches are made of their text. A wrong path is a thing that is not there. */
export function validAddress(
  schema: TSchema,
  values: Record<string, string>,
  part: 'path' | 'query',
): unknown {
  const copy: Record<string, unknown> = { ...values };
  const validate = validator(schema, coercing);
  if (validate(copy)) return copy;
  if (part === 'query') throw wrong(validate.errors?.[0]);
  throw new Problem(
    'not-found',
    `There is no "${Object.values(values).join(' ').slice(0, 40)}".`,
    'Check the address.',
  );
}

function wrong(issue: ErrorObject | undefined): Problem {
  const field = issue?.instancePath.slice(1) ?? '';
  const missing: unknown = issue?.keyword === 'required' ? issue.params['missingProperty'] : undefined;
  if (typeof missing === 'string') {
    const path = [field, missing].filter((part) => part !== '').join('/');
    return new Problem('bad-input', `${path} is missing.`, 'Give it and try again.', path);
  }
  return new Problem(
    'bad-input',
    `${field === '' ? 'The request' : field} ${issue?.message ?? 'is wrong'}.`,
    'Change it and try again.',
    field,
  );
}
