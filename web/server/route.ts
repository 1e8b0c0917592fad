import type { Static, TObject, TSchema } from '@sinclair/typebox';
import type { Context } from '@melto/services/kernel/context';
import type { Download } from '@melto/services/kernel/download';
import { once } from '@melto/services/kernel/idempotency';
import { Problem } from '@melto/services/kernel/problem';
import { ROLES } from '@/endpoints/endpoint';
import type { Endpoint, FileBody, Role } from '@/endpoints/endpoint';
import { context, roleOf } from './context';
import { requireMediaType, requireOwnOrigin } from './guards';
import { readBody } from './readBody';
import { fileResponse, jsonResponse, problemResponse } from './respond';
import { valid, validAddress } from './validate';

const MOST_JSON = 200_000;

/** A request as it fits its endpoint. */
export interface Asked<P, Q, B> {
  readonly context: Context;
  readonly params: P;
  readonly query: Q;
  readonly body: B;
}

type BodyOf<B> = B extends FileBody ? Uint8Array : B extends TSchema ? Static<B> : undefined;
type AnswerOf<A> = A extends TSchema ? Static<A> : never;

type Handler = (
  request: Request,
  next: { readonly params: Promise<Record<string, string>> },
) => Promise<Response>;

/** Parses a request by its endpoint and refuses whoever may not call it. */
async function askedOf<P extends TObject, Q extends TObject, B extends TSchema | FileBody | undefined>(
  endpoint: Endpoint<P, Q, B>,
  request: Request,
  params: Record<string, string>,
): Promise<Asked<Static<P>, Static<Q>, BodyOf<B>>> {
  if (endpoint.method !== 'GET') requireOwnOrigin(request.headers);
  requireRole(roleOf(), endpoint.who);
  const query = Object.fromEntries(new URL(request.url).searchParams);
  return {
    context: context(),
    params: validAddress(endpoint.params, params, 'path') as Static<P>,
    query: validAddress(endpoint.query, query, 'query') as Static<Q>,
    body: (await bodyOf(endpoint.body, request)) as BodyOf<B>,
  };
}

export function requireRole(role: Role, least: Role): void {
  if (ROLES.indexOf(role) < ROLES.indexOf(least))
    throw new Problem('forbidden', `This is for a ${least}.`, 'Ask whoever looks after the house.');
}

async function bodyOf(wanted: TSchema | FileBody | undefined, request: Request): Promise<unknown> {
  if (wanted === undefined) return undefined;
  if ('file' in wanted) {
    requireMediaType(request.headers, 'application/octet-stream');
    return readBody(request, (wanted as FileBody).mostBytes);
  }
  requireMediaType(request.headers, 'application/json');
  const bytes = await readBody(request, MOST_JSON);
  let value: unknown;
  try {
    value = JSON.parse(Buffer.from(bytes).toString('utf8'));
  } catch {
    throw new Problem('bad-input', 'The request is no JSON.', 'Send a JSON object.');
  }
  return valid(wanted, value);
}

/** Tells something. */
export function answering<P extends TObject, Q extends TObject, A extends TSchema>(
  endpoint: Endpoint<P, Q, undefined, A>,
  work: (asked: Asked<Static<P>, Static<Q>, undefined>) => Promise<AnswerOf<A>>,
): Handler {
  return handled(endpoint, async (asked) => jsonResponse(await work(asked)));
}

/** Hands out a file. */
export function handingOut<P extends TObject, Q extends TObject>(
  endpoint: Endpoint<P, Q, undefined, undefined>,
  work: (asked: Asked<Static<P>, Static<Q>, undefined>) => Promise<Download>,
  inline = false,
): Handler {
  return handled(endpoint, async (asked) => fileResponse(await work(asked), inline));
}

/** Changes something, once for each idempotency key, as one unit of work that `asked.context` carries. */
export function changing<
  P extends TObject,
  Q extends TObject,
  B extends TSchema | FileBody | undefined,
  A extends TSchema,
  R = AnswerOf<A>,
>(
  endpoint: Endpoint<P, Q, B, A>,
  work: (asked: Asked<Static<P>, Static<Q>, BodyOf<B>>) => Promise<R>,
  /** What is added to the answer once the change is kept: what others make of it. */
  then: (context: Context, made: R) => Promise<AnswerOf<A>> = async (_, made) =>
    made as unknown as AnswerOf<A>,
): Handler {
  return handled(endpoint, async (asked, request) => {
    const key = request.headers.get('idempotency-key');
    const route = `${endpoint.method} ${new URL(request.url).pathname}`.slice(0, 160);
    const made = await once(asked.context, { route, key }, (inner) => work({ ...asked, context: inner }));
    return jsonResponse(await then(asked.context, made));
  });
}

/** Works something out of what is sent and stores nothing. */
export function workingOut<
  P extends TObject,
  Q extends TObject,
  B extends TSchema | FileBody | undefined,
  A extends TSchema,
>(
  endpoint: Endpoint<P, Q, B, A>,
  work: (asked: Asked<Static<P>, Static<Q>, BodyOf<B>>) => Promise<AnswerOf<A>>,
): Handler {
  return handled(endpoint, async (asked) => jsonResponse(await work(asked)));
}

function handled<P extends TObject, Q extends TObject, B extends TSchema | FileBody | undefined>(
  endpoint: Endpoint<P, Q, B>,
  work: (asked: Asked<Static<P>, Static<Q>, BodyOf<B>>, request: Request) => Promise<Response>,
): Handler {
  return async (request, { params }) => {
    try {
      return await work(await askedOf(endpoint, request, await params), request);
    } catch (error) {
      return problemResponse(error);
    }
  };
}
