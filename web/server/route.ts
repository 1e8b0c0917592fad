import type { Static, TObject, TSchema } from '@sinclair/typebox';
import type { Context } from '@melto/services/kernel/context';
import type { Download } from '@melto/services/kernel/download';
import { once } from '@melto/services/kernel/idempotency';
import type { NewSession } from '@melto/services/people/signIn';
import { Problem } from '@melto/services/kernel/problem';
import { mayDo } from '@melto/core/people/role';
import type { Role } from '@melto/core/people/role';
import { recordAct, watchObject } from '@melto/services/people/acts';
import type { Changed } from '@melto/services/people/acts';
import type { Endpoint, FileBody } from '@/endpoints/endpoint';
import { addressOf, callerOf, sessionCookie } from './caller';
import type { Caller } from './caller';
import { context } from './context';
import { requireMediaType, requireOwnOrigin } from './guards';
import type { Handler } from './dispatch';
import { countRequest } from './metrics';
import { requirePace } from './pace';
import { readBody } from './readBody';
import { requireRoom, roomLeft } from './room';
import { fileResponse, jsonResponse, problemResponse } from './respond';
import { valid, validAddress } from './validate';

const MOST_JSON = 200_000;

/** A request as it fits its endpoint. */
export interface Asked<P, Q, B> {
  /** Acts for whoever sends it; for nobody in particular where anyone may. */
  readonly context: Context;
  /** Undefined where anyone may. */
  readonly caller: Caller | undefined;
  readonly params: P;
  readonly query: Q;
  readonly body: B;
}

type BodyOf<B> = B extends FileBody ? Uint8Array : B extends TSchema ? Static<B> : undefined;
type AnswerOf<A> = A extends TSchema ? Static<A> : never;

/** Parses a request by its endpoint and refuses whoever may not call it. */
async function askedOf<P extends TObject, Q extends TObject, B extends TSchema | FileBody | undefined>(
  endpoint: Endpoint<P, Q, B>,
  request: Request,
  params: Record<string, string>,
): Promise<Asked<Static<P>, Static<Q>, BodyOf<B>>> {
  const { headers } = request;
  if (endpoint.method !== 'GET') requireOwnOrigin(headers);
  const caller = endpoint.who === 'anyone' ? undefined : await requireCaller(headers, endpoint.who);
  await requirePace(caller === undefined ? addressOf(headers) : paceKey(caller), endpoint);
  if (endpoint.method !== 'GET') requireRoom(await roomLeft());
  const query = Object.fromEntries(new URL(request.url).searchParams);
  return {
    context: caller?.context ?? context(),
    caller,
    params: validAddress(endpoint.params, params, 'path') as Static<P>,
    query: validAddress(endpoint.query, query, 'query') as Static<Q>,
    body: (await bodyOf(endpoint, request)) as BodyOf<B>,
  };
}

async function requireCaller(headers: Headers, least: Role): Promise<Caller> {
  const caller = await callerOf(headers);
  if (caller === undefined)
    throw new Problem('unauthenticated', 'Nobody is signed in here.', 'Sign in, and send it again.');
  if (!mayDo(caller.role, least))
    throw new Problem('forbidden', `This is for a ${least}.`, 'Ask whoever looks after the house.');
  return caller;
}

const paceKey = ({ context: { database }, origin }: Caller): string =>
  `${database.house} ${database.person} ${origin.keyId ?? ''}`;

async function bodyOf(
  { body: wanted, mostBytes = MOST_JSON }: Pick<Endpoint, 'body' | 'mostBytes'>,
  request: Request,
): Promise<unknown> {
  if (wanted === undefined) return undefined;
  if ('file' in wanted) {
    requireMediaType(request.headers, 'application/octet-stream');
    return readBody(request, (wanted as FileBody).mostBytes);
  }
  requireMediaType(request.headers, 'application/json');
  const bytes = await readBody(request, mostBytes);
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
    const made = await once(asked.context, { route, key }, async (inner) => {
      const own = { ...asked, context: inner };
      const changes =
        endpoint.byItself === true ? undefined : await watchObject(inner, new URL(request.url).pathname);
      const done = await work(own);
      await recorded(endpoint, own, request, await changes?.());
      return done;
    });
    return jsonResponse(await then(asked.context, made));
  });
}

/** What is told of a change this once: nothing of it is kept with the request. */
export interface ToldOnce<A> {
  readonly answer: A;
  /** A session that the browser is to keep; undefined for one that it is to forget. */
  readonly session?: { readonly kept: NewSession | undefined };
}

/** Changes something whose answer is not to be kept: passphrases, keys, sessions. */
export function telling<
  P extends TObject,
  Q extends TObject,
  B extends TSchema | undefined,
  A extends TSchema,
>(
  endpoint: Endpoint<P, Q, B, A>,
  work: (asked: Asked<Static<P>, Static<Q>, BodyOf<B>>, request: Request) => Promise<ToldOnce<AnswerOf<A>>>,
): Handler {
  return handled(endpoint, async (asked, request) => {
    const { answer, session } = await work(asked, request);
    await recorded(endpoint, asked, request);
    const response = jsonResponse(answer);
    if (session !== undefined)
      response.headers.set('set-cookie', sessionCookie(request.headers, session.kept));
    return response;
  });
}

/** Notes a change in the record of acts; whoever is nobody yet is noted where they become somebody. */
async function recorded(
  { says, byItself }: Pick<Endpoint, 'says' | 'byItself'>,
  { caller, context: own, body, query }: Asked<unknown, unknown, unknown>,
  request: Request,
  changed?: Changed,
): Promise<void> {
  if (caller === undefined || byItself === true) return;
  const sent = body instanceof Uint8Array ? { ...(query as object), file: `${body.length} bytes` } : body;
  await recordAct(own, caller.origin, { what: says, object: new URL(request.url).pathname, sent, changed });
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
  const { method, path } = endpoint;
  return async (request, { params }) => {
    const started = performance.now();
    const response = await answered(
      async () => work(await askedOf(endpoint, request, await params), request),
      { method, path },
    );
    countRequest(method, path, response.status, (performance.now() - started) / 1000);
    return response;
  };
}

async function answered(
  work: () => Promise<Response>,
  asked: Pick<Endpoint, 'method' | 'path'>,
): Promise<Response> {
  try {
    return await work();
  } catch (error) {
    return problemResponse(error, asked);
  }
}
