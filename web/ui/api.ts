import { nanoid } from 'nanoid';
import type { Static, TObject, TSchema } from '@sinclair/typebox';
import type { Endpoint, FileBody } from '@/endpoints/endpoint';

/** A refusal of the server: what happened and what to do. */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    readonly field?: string,
  ) {
    super(title);
  }
}

const AWAY = new ApiProblem(
  0,
  'The server does not answer.',
  'What was confirmed is kept. Try again in a moment.',
);

/** What a schema takes, from whoever holds it unchangeable. */
type Held<T> = T extends object ? { readonly [K in keyof T]: Held<T[K]> } : T;

/** What is asked of an endpoint; fields that it does not have are left out. */
type Asked<P extends TObject, Q extends TObject, B> = (keyof Static<P> extends never
  ? { readonly params?: undefined }
  : { readonly params: Static<P> }) & { readonly query?: Held<Static<Q>> } & (B extends FileBody
    ? { readonly body: Blob | string }
    : B extends TSchema
      ? { readonly body: Held<Static<B>> }
      : { readonly body?: undefined });

type Loose = {
  readonly params?: Readonly<Record<string, unknown>>;
  readonly query?: Readonly<Record<string, unknown>>;
  readonly body?: unknown;
};

/** The address of an endpoint for what is asked. */
export function addressOf(
  { path }: Pick<Endpoint, 'path'>,
  { params = {}, query = {} }: Pick<Loose, 'params' | 'query'> = {},
): string {
  const filled = path.replace(/\{(\w+)\}/g, (_, name: string) => encodeURIComponent(String(params[name])));
  const search = new URLSearchParams(
    Object.entries(query).flatMap(([name, value]) => (value === undefined ? [] : [[name, String(value)]])),
  ).toString();
  return search === '' ? filled : `${filled}?${search}`;
}

async function answered<T>(request: Promise<Response>): Promise<T> {
  let response: Response;
  try {
    response = await request;
  } catch {
    throw AWAY;
  }
  const body = (await response.json().catch(() => undefined)) as unknown;
  if (response.ok) return body as T;
  const problem = (body ?? {}) as { title?: string; detail?: string; field?: string };
  throw new ApiProblem(
    response.status,
    problem.title ?? 'The server could not answer.',
    problem.detail ?? 'Try again.',
    problem.field,
  );
}

/** Asks what an endpoint tells. */
export function ask<P extends TObject, Q extends TObject, A extends TSchema>(
  endpoint: Endpoint<P, Q, undefined, A>,
  asked: Asked<P, Q, undefined>,
): Promise<Static<A>> {
  return answered(fetch(addressOf(endpoint, asked as Loose), { cache: 'no-store' }));
}

/** Changes that are on their way: a second click on the same one waits for the first. */
const underWay = new Map<string, Promise<unknown>>();
/** Keys of changes that had no answer: the same change sent again is the same change. */
const unanswered = new Map<string, string>();

/** Sends a change once, however often it is asked for before its answer comes, and under one key until it is answered. */
export function send<
  P extends TObject,
  Q extends TObject,
  B extends TSchema | FileBody | undefined,
  A extends TSchema,
>(endpoint: Endpoint<P, Q, B, A>, asked: Asked<P, Q, B>, key?: string): Promise<Static<A>> {
  const loose = asked as Loose;
  const address = addressOf(endpoint, loose);
  const { body, type } = bodyOf(loose.body);
  const same = `${endpoint.method} ${address} ${key ?? ''} ${typeof body === 'string' ? body : fileMark(body)}`;
  const before = underWay.get(same) as Promise<Static<A>> | undefined;
  if (before !== undefined) return before;
  const used = key ?? unanswered.get(same) ?? newKey();
  const sent = answered<Static<A>>(
    fetch(address, {
      method: endpoint.method,
      body,
      headers: { 'content-type': type, 'idempotency-key': used },
    }),
  );
  underWay.set(same, sent);
  void sent.then(
    () => {
      underWay.delete(same);
      unanswered.delete(same);
    },
    (error: unknown) => {
      underWay.delete(same);
      // A refusal stored nothing; whatever else happened may have.
      if (error instanceof ApiProblem && error.status >= 400 && error.status < 500) unanswered.delete(same);
      else unanswered.set(same, used);
    },
  );
  return sent;
}

function bodyOf(body: unknown): { readonly body: string | Blob; readonly type: string } {
  const bytes = 'application/octet-stream';
  if (body instanceof Blob) return { body, type: bytes };
  // Text of a file is sent as the bytes that it is: a form of another site could send plain text too.
  if (typeof body === 'string') return { body: new Blob([body]), type: bytes };
  return { body: JSON.stringify(body ?? {}), type: 'application/json' };
}

function fileMark(file: Blob): string {
  return file instanceof File ? `${file.name} ${file.size} ${file.lastModified}` : `${file.size}`;
}

export function newKey(): string {
  // Also where the browser has no `crypto.randomUUID`: over plain HTTP from another machine.
  return nanoid();
}

/** An error of the browser's own, whose message is a sentence for people. */
export class SaidError extends Error {}

export function problemWords(error: unknown): string {
  if (error instanceof SaidError) return error.message;
  return error instanceof ApiProblem
    ? `${error.title} ${error.detail}`.trim()
    : 'Something went wrong. Nothing was changed; try again.';
}
