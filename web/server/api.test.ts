import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { conditionChoices, DEFAULT_POINTS } from '@melto/services/ledger/conditions';
import { named } from '@melto/services/testing/named';
import { openTestServices } from '@melto/services/testing/testServices';
import type { TestServices } from '@melto/services/testing/testServices';
import { ENDPOINTS } from './endpoints';
import { SCHEMAS } from './schemas';

const ROOT = join(import.meta.dirname, '../app/api');
type Endpoint = (typeof ENDPOINTS)[number];
type Handler = (
  request: Request,
  context: { params: Promise<Record<string, string>> },
) => Response | Promise<Response>;

let services: TestServices;
beforeAll(async () => {
  services = await openTestServices('melto_api');
  // The handlers take the services that are there already.
  process.env['MELTO_DATABASE_URL'] = 'mysql://nowhere';
  globalThis.meltoServices = services;
});
afterAll(async () => {
  globalThis.meltoServices = undefined;
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

/** Calls the handler of an endpoint as Next would. */
async function call(
  { method, path }: Pick<Endpoint, 'method' | 'path'>,
  given: { id?: string; body?: string; key?: string; query?: string } = {},
): Promise<Response> {
  const { [method.toUpperCase()]: handler } = (await import(fileOf(path))) as Record<string, Handler>;
  const params = Object.fromEntries(
    [...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => [name, given.id ?? '1']),
  );
  const url = `http://melto.test${path.replace(/\{\w+\}/, given.id ?? '1')}${given.query ?? ''}`;
  const request = new Request(url, {
    method: method.toUpperCase(),
    ...(given.body === undefined ? {} : { body: given.body }),
    headers: given.key === undefined ? {} : { 'idempotency-key': given.key },
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
        there.push(`${method.toLowerCase()} ${path}`);
    }
    const told = ENDPOINTS.map(({ method, path }) => `${method} ${path}`);
    expect(new Set(told).size).toBe(told.length);
    expect([...told].sort()).toEqual(there.sort());
  });

  it('gives each body its schema, which refuses what it does not know', () => {
    for (const { body } of ENDPOINTS)
      if (body !== undefined)
        expect(SCHEMAS[body]).toMatchObject({ type: 'object', additionalProperties: false });
  });
});

const WITH_BODY = ENDPOINTS.filter(({ body }) => body !== undefined).map(
  (endpoint) => [`${endpoint.method} ${endpoint.path}`, endpoint] as const,
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
    const schema = SCHEMAS[endpoint.body ?? 'newChart'] as { properties: Record<string, unknown> };
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
});

describe('an address that is wrong', () => {
  const withId = ENDPOINTS.filter(({ path, method }) => path.includes('{') && method === 'get').map(
    (endpoint) => [endpoint.path, endpoint] as const,
  );
  it.each(withId)('%s says that there is none', async (_, endpoint) => {
    for (const id of ['999999', '0', '-1', '1e99', 'x', '../../etc/passwd', "1' OR '1'='1"])
      expect([400, 404]).toContain((await refused(await call(endpoint, { id }))).status);
  });

  it('has a route for each of them', () => {
    for (const { path } of ENDPOINTS) expect(existsSync(fileOf(path)), path).toBe(true);
  });
});

describe('a change that is sent twice', () => {
  it('with the same key is made once, and answered alike', async () => {
    const heron = named((await conditionChoices(services)).devices, 'Heron');
    const body = JSON.stringify({
      deviceId: heron.id,
      stockId: heron.stocks[0].id,
      inkSet: heron.inkSet,
      mode: 'standard',
      points: DEFAULT_POINTS,
    });
    const endpoint = { method: 'post', path: '/api/conditions' } as const;
    const first = await call(endpoint, { body, key: 'once' });
    const again = await call(endpoint, { body, key: 'once' });
    expect(first.status).toBe(200);
    expect(await again.json()).toEqual(await first.json());
    const count = await services.database.rows<{ n: number }>('SELECT COUNT(*) AS n FROM printing_condition');
    expect(Number(count[0].n)).toBe(1);
  });

  it('is tried again where the first was refused', async () => {
    const endpoint = { method: 'post', path: '/api/clock' } as const;
    await refused(await call(endpoint, { body: '{"byMs":-1}', key: 'twice' }));
    expect((await call(endpoint, { body: '{"byMs":1000}', key: 'twice' })).status).toBe(200);
  });
});
