import { vi } from 'vitest';

export interface Sent {
  readonly method: string;
  readonly path: string;
  readonly body: unknown;
  readonly key: string | null;
}

type Answer = unknown | ((sent: Sent) => unknown);

/** A refusal as the server words it. */
export class Refused {
  constructor(
    readonly status: number,
    readonly problem: { readonly title: string; readonly detail: string; readonly field?: string },
  ) {}
}

/** Thrown by an answer: the server is not there. */
export const AWAY = new TypeError('fetch failed');

/** What many forms ask for on their own: answered as by a house that has told nothing, and not kept. */
const ASIDE: Answers = {
  '/brightener': null,
  '/pages': { pages: [], screenPerCm: null },
  '/colour-lists': [],
  '/lights': ['D50', 'F11'].map((key) => ({ key, id: null, name: key, away: false })),
};

type Answers = Readonly<Record<string, Answer>>;

/** Answers `fetch` by `METHOD path`, with its query where there is an answer for that, and keeps what was sent. */
export function fakeServer(answers: Readonly<Record<string, Answer>>): { readonly sent: Sent[] } {
  const sent: Sent[] = [];
  vi.stubGlobal('fetch', async (input: string, init: RequestInit = {}) => {
    const method = init.method ?? 'GET';
    const aside = ASIDE[input.slice(input.lastIndexOf('/'))];
    if (aside !== undefined && answers[`${method} ${input}`] === undefined)
      return new Response(JSON.stringify(aside));
    const text = typeof init.body === 'string' ? init.body : undefined;
    const one: Sent = {
      method,
      path: input,
      body: text !== undefined && text.startsWith('{') ? JSON.parse(text) : text,
      key: new Headers(init.headers).get('idempotency-key'),
    };
    sent.push(one);
    const answer = answers[`${method} ${input}`] ?? answers[`${method} ${input.split('?')[0]}`];
    if (answer === undefined) throw new Error(`no answer to ${method} ${input}`);
    const given: unknown =
      typeof answer === 'function' ? await (answer as (sent: Sent) => unknown)(one) : answer;
    return given instanceof Refused
      ? new Response(JSON.stringify(given.problem), { status: given.status })
      : new Response(JSON.stringify(given ?? null));
  });
  return { sent };
}
