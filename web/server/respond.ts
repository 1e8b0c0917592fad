import { Ajv } from 'ajv';
import type { ValidateFunction } from 'ajv';
import { Problem, PROBLEM_STATUS } from '@melto/services/kernel/problem';
import { findStoredAnswer, storeGivenAnswer } from '@melto/services/kernel/idempotency';
import type { Download } from '@melto/services/charts/charts';
import { SCHEMAS } from './schemas.ts';
import type { Bodies } from './schemas.ts';
import { services } from './services.ts';

const ajv = new Ajv({ allErrors: false, strict: false });
const validators = new Map<keyof Bodies, ValidateFunction>();
const MOST_JSON = 200_000;

/** Runs a handler and turns what it gives or throws into a response (RFC 9457 for problems). */
export async function respond(work: () => Promise<unknown>): Promise<Response> {
  try {
    return Response.json((await work()) ?? {});
  } catch (error) {
    return problemResponse(error);
  }
}

/** As `respond`, for a change: a repeated idempotency key gets the first answer again. */
export async function respondOnce(request: Request, work: () => Promise<unknown>): Promise<Response> {
  const key = request.headers.get('idempotency-key');
  if (key === null || key.length > 80) return respond(work);
  try {
    const before = await findStoredAnswer(services(), key);
    if (before !== undefined)
      return new Response(before.body, {
        status: before.status,
        headers: { 'content-type': 'application/json' },
      });
    const body = JSON.stringify((await work()) ?? {});
    await storeGivenAnswer(services(), key, { status: 200, body });
    return new Response(body, { headers: { 'content-type': 'application/json' } });
  } catch (error) {
    return problemResponse(error);
  }
}

function problemResponse(error: unknown): Response {
  const problem =
    error instanceof Problem
      ? {
          type: `/problems/${error.type}`,
          title: error.title,
          status: PROBLEM_STATUS[error.type] as number,
          detail: error.detail,
          field: error.field,
        }
      : {
          type: '/problems/internal',
          title: 'Melto has made a mistake.',
          status: 500,
          detail: 'Nothing was changed. Try again; the log of the server tells more.',
          field: undefined,
        };
  if (!(error instanceof Problem)) console.error(error);
  return new Response(JSON.stringify(problem), {
    status: problem.status,
    headers: { 'content-type': 'application/problem+json' },
  });
}

/** The JSON body of a request, checked by its schema. */
export async function bodyOf<Name extends keyof Bodies>(request: Request, name: Name): Promise<Bodies[Name]> {
  const text = await request.text();
  if (text.length > MOST_JSON)
    throw new Problem('too-large', 'The request is too large.', 'Send less at once.');
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new Problem('bad-input', 'The request is no JSON.', 'Send a JSON object.');
  }
  let validate = validators.get(name);
  if (validate === undefined) {
    validate = ajv.compile(SCHEMAS[name]);
    validators.set(name, validate);
  }
  if (!validate(value)) {
    const [issue] = validate.errors ?? [];
    const field = issue?.instancePath.slice(1) ?? '';
    throw new Problem(
      'bad-input',
      `${field === '' ? 'The request' : field} ${issue?.message ?? 'is wrong'}.`,
      'Change it and try again.',
      field,
    );
  }
  return value as Bodies[Name];
}

/** A number in the path. */
export function idOf(text: string): number {
  const id = Number(text);
  if (!Number.isSafeInteger(id) || id < 1)
    throw new Problem('not-found', `There is no "${text.slice(0, 40)}".`, 'Check the address.');
  return id;
}

export async function download(work: () => Promise<Download>, inline = false): Promise<Response> {
  try {
    const { name, mediaType, content } = await work();
    return new Response(new Uint8Array(content), {
      headers: {
        'content-type': mediaType,
        'content-disposition': `${inline ? 'inline' : 'attachment'}; filename="${name.replace(/[^A-Za-z0-9._-]/g, '_')}"`,
        'x-content-type-options': 'nosniff',
        'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'",
      },
    });
  } catch (error) {
    return problemResponse(error);
  }
}
