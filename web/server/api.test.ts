import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import type { TObject } from '@sinclair/typebox';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { conditionChoices, DEFAULT_POINTS } from '@melto/services/house/newCondition';
import { named } from '@melto/services/testing/named';
import { openTestServices } from '@melto/services/testing/testServices';
import type { TestServices } from '@melto/services/testing/testServices';
import { ENDPOINTS } from '@/endpoints/all';
import type { Endpoint } from '@/endpoints/endpoint';
import { openApi } from './openApi';

const ROOT = join(import.meta.dirname, '../app/api');
type Handler = (
  request: Request,
  context: { params: Promise<Record<string, string>> },
) => Response | Promise<Response>;

let services: TestServices;
beforeAll(async () => {
  services = await openTestServices('melto_api');
  // The handlers take the context that is there already.
  process.env['MELTO_DATABASE_URL'] = 'mysql://nowhere';
  globalThis.meltoContext = services;
});
afterAll(async () => {
  globalThis.meltoContext = undefined;
  await services.database.close();
});

const fileOf = (path: string): string =>
  join(
    ROOT,
    path
      .replace(/^\/api\//, '')
      .replaceAll('{', '[')
      .replaceAll('}', ']'),
    'route.ts',
  );

interface Given {
  readonly id?: string;
  readonly body?: string;
  readonly query?: string;
  readonly headers?: Readonly<Record<string, string>>;
}

/** Calls the handler of an endpoint as Next would, from this server's own page where nothing else is given. */
async function call(
  { method, path }: Pick<Endpoint, 'method' | 'path'>,
  given: Given = {},
): Promise<Response> {
  const { [method]: handler } = (await import(fileOf(path))) as Record<string, Handler>;
  const params = Object.fromEntries(
    [...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => [name, given.id ?? '1']),
  );
  const url = `http://127.0.0.1:3400${path.replace(/\{\w+\}/, given.id ?? '1')}${given.query ?? ''}`;
  const headers = new Headers({
    host: '127.0.0.1:3400',
    'content-type': 'application/json',
    ...given.headers,
  });
  const request = new Request(url, {
    method,
    headers,
    ...(given.body === undefined ? {} : { body: given.body }),
  });
  return handler(request, { params: Promise.resolve(params) });
}

interface ProblemBody {
  readonly type: string;
  readonly title: string;
  readonly status: number;
  readonly detail: string;
}

/** A refusal in words, never a mistake of ours. */
async function refused(response: Response): Promise<ProblemBody> {
  const body = (await response.json()) as ProblemBody;
  expect(response.headers.get('content-type'), JSON.stringify(body)).toBe('application/problem+json');
  expect(response.status).toBeGreaterThanOrEqual(400);
  expect(response.status, body.title).toBeLessThan(500);
  expect(body.status).toBe(response.status);
  expect(body.title.length).toBeGreaterThan(4);
  expect(body.detail.length).toBeGreaterThan(4);
  return body;
}

const nameOf = ({ method, path }: Endpoint): string => `${method} ${path}`;

describe('the published description of the API', () => {
  it('names every route that there is, and no other', async () => {
    const files = readdirSync(ROOT, { recursive: true, encoding: 'utf8' }).filter((file) =>
      file.endsWith('route.ts'),
    );
    const there: string[] = [];
    for (const file of files) {
      const path = `/api/${file
        .replace(/\/route\.ts$/, '')
        .replaceAll('[', '{')
        .replaceAll(']', '}')}`;
      const methods = Object.keys((await import(join(ROOT, file))) as object);
      for (const method of methods.filter((name) => /^(GET|POST|PUT|DELETE|PATCH)$/.test(name)))
        there.push(`${method} ${path}`);
    }
    const told = ENDPOINTS.map(nameOf);
    expect(new Set(told).size).toBe(told.length);
    expect([...told].sort()).toEqual(there.sort());
  });

  it('gives each body its schema, which refuses what it does not know, and each answer its own', () => {
    for (const { body, answer, path } of ENDPOINTS) {
      if (body !== undefined && !('file' in body))
        expect(body, path).toMatchObject({ type: 'object', additionalProperties: false });
      if (answer === undefined)
        expect(path).toMatch(/file|report|curves|results.*settings|results.*package|stream|openapi/);
    }
    const { paths } = openApi() as { paths: Record<string, Record<string, { responses: object }>> };
    expect(Object.keys(paths).length).toBeGreaterThan(50);
    expect(paths['/api/clock']?.['post']).toMatchObject({
      requestBody: { content: { 'application/json': { schema: { required: ['byMs'] } } } },
      responses: { 200: { content: { 'application/json': { schema: { required: ['offsetMs'] } } } } },
    });
  });
});

const WITH_BODY = ENDPOINTS.filter(({ body }) => body !== undefined && !('file' in body)).map(
  (endpoint) => [nameOf(endpoint), endpoint] as const,
);
const WITH_FILE = ENDPOINTS.filter(({ body }) => body !== undefined && 'file' in body).map(
  (endpoint) => [nameOf(endpoint), endpoint] as const,
);
const CHANGES = ENDPOINTS.filter(({ method }) => method !== 'GET').map(
  (endpoint) => [nameOf(endpoint), endpoint] as const,
);

describe('a body that is wrong', () => {
  it.each(WITH_BODY)(
    '%s refuses what is no JSON, no object, or has a field too many',
    async (_, endpoint) => {
      expect((await refused(await call(endpoint, { body: '{"a":' }))).title).toBe('The request is no JSON.');
      for (const body of ['[]', '17', 'null', '"x"', '{"surely-not-a-field":1}'])
        await refused(await call(endpoint, { body }));
      const long = await refused(await call(endpoint, { body: `{"x":"${'y'.repeat(210_000)}"}` }));
      expect(long.status).toBe(413);
    },
  );

  it.each(WITH_BODY)('%s never breaks on values of other kinds', async (_, endpoint) => {
    const schema = endpoint.body as TObject;
    const junk = fc.record(
      Object.fromEntries(
        Object.keys(schema.properties).map((name) => [name, fc.jsonValue({ maxDepth: 2 })] as const),
      ),
    );
    await fc.assert(
      fc.asyncProperty(junk, async (body) => {
        const response = await call(endpoint, { id: '999999', body: JSON.stringify(body) });
        // Where chance meets the schema, the object of the address is missing.
        if (response.status >= 300) await refused(response);
      }),
      { numRuns: 12, seed: 41 },
    );
  });

  it.each(WITH_FILE)('%s takes bytes alone, and no more than it says', async (_, endpoint) => {
    const wanted = Object.keys(endpoint.query.properties);
    const query = `?${wanted.includes('side') ? 'side=64' : ''}${wanted.includes('name') ? 'name=x' : ''}${wanted.includes('asRecorded') ? '&asRecorded=yes' : ''}${wanted.includes('origin') ? '&origin=maker' : ''}${wanted.includes('printMode') ? '&printMode=x&deviceId=1&stockId=1' : ''}`;
    for (const type of ['text/plain', 'application/json', 'multipart/form-data'])
      expect(
        (await refused(await call(endpoint, { body: 'x', query, headers: { 'content-type': type } }))).status,
      ).toBe(415);
    const most = endpoint.body !== undefined && 'file' in endpoint.body ? endpoint.body.mostBytes : 0;
    const bytes = { 'content-type': 'application/octet-stream' };
    const declared = { ...bytes, 'content-length': String(most + 1) };
    expect((await refused(await call(endpoint, { body: 'x', headers: declared, query }))).status).toBe(413);
    if (most <= 1_000_000)
      expect(
        (await refused(await call(endpoint, { body: 'y'.repeat(most + 1), headers: bytes, query }))).status,
      ).toBe(413);
  });
});

describe('a change from elsewhere', () => {
  it.each(CHANGES)('%s is refused to pages of other sites and under other names', async (_, endpoint) => {
    const from = async (headers: Record<string, string>): Promise<number> =>
      (await refused(await call(endpoint, { body: '{}', headers }))).status;
    expect(await from({ origin: 'http://evil.example' })).toBe(403);
    expect(await from({ origin: 'null' })).toBe(403);
    expect(await from({ 'sec-fetch-site': 'cross-site' })).toBe(403);
    expect(await from({ 'sec-fetch-site': 'same-site' })).toBe(403);
    expect(await from({ host: 'rebound.example:3400' })).toBe(403);
    // A form of any page can send text: it is not taken for JSON.
    if (endpoint.body !== undefined && !('file' in endpoint.body))
      expect(await from({ 'content-type': 'text/plain' })).toBe(415);
  });

  it('changes nothing', async () => {
    const rows = await services.database.rows<{ n: number }>('SELECT COUNT(*) AS n FROM printing_condition');
    expect(Number(rows[0]?.n)).toBe(0);
    expect(await services.database.rows("SELECT value FROM setting WHERE name = 'clock-offset-ms'")).toEqual(
      [],
    );
  });
});

describe('an address that is wrong', () => {
  const withId = ENDPOINTS.filter(({ path, method }) => path.includes('{') && method === 'GET').map(
    (endpoint) => [endpoint.path, endpoint] as const,
  );
  it.each(withId)('%s says that there is none', async (path, endpoint) => {
    for (const id of ['999999', '0', '-1', '1e99', 'x', '../../etc/passwd', "1' OR '1'='1"]) {
      const response = await call(endpoint, { id });
      // A list of what a missing condition has is empty.
      if (response.status === 200) expect(path).toMatch(/sheets$|readings$/);
      else expect([400, 404]).toContain((await refused(response)).status);
    }
  });

  it('has a route for each of them', () => {
    for (const { path } of ENDPOINTS) expect(existsSync(fileOf(path)), path).toBe(true);
  });

  it('with a wrong query names the field', async () => {
    const floor = { method: 'GET', path: '/api/floor' } as const;
    expect((await refused(await call(floor, { query: '?show=all' }))).title).toContain('show');
    expect((await refused(await call(floor, { query: '?limit=501' }))).title).toContain('limit');
    expect((await call(floor, { query: '?limit=500&order=device&find=a' })).status).toBe(200);
  });
});

describe('a change that is sent twice', () => {
  const key = (own: string): Record<string, string> => ({ 'idempotency-key': own });

  it('with the same key is made once, and answered alike, also where both come at once', async () => {
    const heron = named((await conditionChoices(services)).devices, 'Heron');
    const body = JSON.stringify({
      deviceId: heron.id,
      stockId: heron.stocks[0]?.id,
      inkSet: heron.inkSet,
      mode: 'standard',
      points: DEFAULT_POINTS,
    });
    const endpoint = { method: 'POST', path: '/api/conditions' } as const;
    const answers = await Promise.all(
      Array.from({ length: 3 }, () => call(endpoint, { body, headers: key('once') })),
    );
    expect(answers.map(({ status }) => status)).toEqual([200, 200, 200]);
    const told = await Promise.all(answers.map((answer) => answer.json()));
    expect(told[1]).toEqual(told[0]);
    expect(told[2]).toEqual(told[0]);
    const count = await services.database.rows<{ n: number }>('SELECT COUNT(*) AS n FROM printing_condition');
    expect(Number(count[0]?.n)).toBe(1);
  });

  it('is tried again where the first was refused', async () => {
    const endpoint = { method: 'POST', path: '/api/clock' } as const;
    await refused(await call(endpoint, { body: '{"byMs":-1}', headers: key('twice') }));
    expect((await call(endpoint, { body: '{"byMs":1000}', headers: key('twice') })).status).toBe(200);
  });

  it('with a key of another route is another change', async () => {
    const instrument = {
      ...{ serial: 'A-1', name: 'Lodestar', kind: 'strip', modes: ['M1'], tileLifeMs: 7_200_000 },
    };
    const known = await call(
      { method: 'POST', path: '/api/instruments' },
      { body: JSON.stringify(instrument), headers: key('shared') },
    );
    const clock = await call(
      { method: 'POST', path: '/api/clock' },
      { body: '{"byMs":5}', headers: key('shared') },
    );
    expect(await known.json()).toMatchObject({ serial: 'A-1', apertureMm: null, simulated: false });
    expect(await clock.json()).toHaveProperty('offsetMs');
  });

  it('with a key that is none is refused', async () => {
    const endpoint = { method: 'POST', path: '/api/clock' } as const;
    for (const own of ['', 'a b', 'x'.repeat(81)])
      await refused(await call(endpoint, { body: '{"byMs":5}', headers: key(own) }));
    expect((await call(endpoint, { body: '{"byMs":5}', headers: key('x'.repeat(80)) })).status).toBe(200);
  });
});

describe('health', () => {
  it('is bad where no runner was heard of, and good while one is', async () => {
    const endpoint = { method: 'GET', path: '/api/health' } as const;
    expect((await call(endpoint)).status).toBe(503);
    await services.database.change("INSERT INTO runner (id, started_ms, beat_ms) VALUES ('a-runner', ?, ?)", [
      Date.now(),
      Date.now(),
    ]);
    const well = await call(endpoint);
    expect(well.status).toBe(200);
    expect(await well.json()).toEqual({ ok: true, database: true, runner: true });
    await services.database.change('UPDATE runner SET beat_ms = beat_ms - 6100');
    expect(await (await call(endpoint)).json()).toEqual({ ok: false, database: true, runner: false });
  });
});
