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

async function answer<T>(request: Promise<Response>): Promise<T> {
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

export function getJson<T>(path: string): Promise<T> {
  return answer(fetch(path, { cache: 'no-store' }));
}

/** Sends a change with an idempotency key of its own, so that a retry is the same change. */
export function sendJson<T>(
  path: string,
  body: unknown = {},
  method: 'POST' | 'PUT' = 'POST',
  key: string = newKey(),
): Promise<T> {
  return answer(
    fetch(path, {
      method,
      body: JSON.stringify(body),
      headers: { 'content-type': 'application/json', 'idempotency-key': key },
    }),
  );
}

export function sendText<T>(path: string, text: string): Promise<T> {
  return answer(
    fetch(path, {
      method: 'POST',
      body: text,
      headers: { 'content-type': 'text/plain', 'idempotency-key': newKey() },
    }),
  );
}

export function sendBytes<T>(path: string, bytes: Blob): Promise<T> {
  return answer(
    fetch(path, {
      method: 'POST',
      body: bytes,
      headers: { 'content-type': 'application/octet-stream', 'idempotency-key': newKey() },
    }),
  );
}

export function newKey(): string {
  return crypto.randomUUID();
}

export function problemWords(error: unknown): string {
  return error instanceof ApiProblem
    ? `${error.title} ${error.detail}`
    : 'Something went wrong. Nothing was changed; try again.';
}
