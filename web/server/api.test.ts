import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { TObject } from '@sinclair/typebox';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { mayDo, ROLES } from '@melto/core/people/role';
import type { Role } from '@melto/core/people/role';
import { detailOf } from '@melto/services/people/acts';
import { makePerson } from '@melto/services/people/people';
import { claimHouse, signIn } from '@melto/services/people/signIn';
import type { NewSession } from '@melto/services/people/signIn';
import { conditionChoices, DEFAULT_POINTS } from '@melto/services/house/newCondition';
import { named } from '@melto/services/testing/named';
import { openTestServices } from '@melto/services/testing/testServices';
import type { TestServices } from '@melto/services/testing/testServices';
import { ROUTES } from '@/api/routes';
import { ENDPOINTS } from '@/endpoints/all';
import type { Endpoint } from '@/endpoints/endpoint';
import { openApi } from './openApi';
import { callHandler } from './testing/callHandler';
import type { GivenToHandler } from './testing/callHandler';
import { exampleOf } from './testing/exampleOf';

const ROOT = join(import.meta.dirname, '../api');
// How much one may send is tested by itself: here is more than anybody sends.
vi.mock('./pace', () => ({ requirePace: () => Promise.resolve() }));

const PASSPHRASE = 'three quiet herons wade';
const DOOR = { agent: 'test', origin: { keyId: null, origin: '' } };
/** What browsers of each role send along. */
const cookies = {} as Record<Role, string>;
let services: TestServices;
beforeAll(async () => {
  services = await openTestServices('melto_api');
  // The handlers take the context that is there already.
  process.env['MELTO_DATABASE_URL'] = 'mysql://nowhere';
  globalThis.meltoContext = services;
  // A sample house lets in whoever sits at its machine: here everybody says who they are.
  await services.database.change('UPDATE house SET sample = 0');
  const cookie = ({ secret }: NewSession): string => `melto_session=${secret}`;
  cookies.keeper = cookie(
    await claimHouse(services, { name: 'Ines Marlow', passphrase: PASSPHRASE, ...DOOR }),
  );
  for (const role of ['specialist', 'operator', 'viewer'] as const) {
    const { passphrase } = await makePerson(services, { name: `The ${role}`, role });
    cookies[role] = cookie(await signIn(services, { name: `The ${role}`, passphrase, ...DOOR }));
  }
});
afterAll(async () => {
  globalThis.meltoContext = undefined;
  await services.database.close();
});

interface Given extends GivenToHandler {
  /** Whose browser sends it; the keeper's where nothing else is given, nobody's for null. */
  readonly as?: Role | null;
}

/** Calls the handler of an endpoint for whoever is given. */
function call(
  endpoint: Pick<Endpoint, 'method' | 'path'>,
  { as = 'keeper', headers, ...given }: Given = {},
): Promise<Response> {
  const cookie: Record<string, string> = as === null ? {} : { cookie: cookies[as] };
  return callHandler(endpoint, { ...given, headers: { ...cookie, ...headers } });
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
    const there = Object.entries(ROUTES).flatMap(([path, route]) =>
      Object.keys(route).map((method) => `${method} ${path}`),
    );
    const told = ENDPOINTS.map(nameOf);
    expect(new Set(told).size).toBe(told.length);
    expect([...told].sort()).toEqual(there.sort());
  });

  it('keeps each route in the file of its address', () => {
    const files = readdirSync(ROOT, { recursive: true, encoding: 'utf8' })
      .filter((file) => file.endsWith('/route.ts'))
      .map(
        (file) =>
          `/api/${file
            .replace(/\/route\.ts$/, '')
            .replaceAll('[', '{')
            .replaceAll(']', '}')}`,
      );
    expect(Object.keys(ROUTES).sort()).toEqual(files.sort());
  });

  it('gives each body its schema, which refuses what it does not know, and each answer its own', () => {
    for (const { body, answer, path } of ENDPOINTS) {
      if (body !== undefined && !('file' in body))
        expect(body, path).toMatchObject({ type: 'object', additionalProperties: false });
      if (answer === undefined)
        expect(path).toMatch(/file|report|curves|results.*settings|results.*package|stream|openapi|metrics/);
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

describe('who may call what', () => {
  const all = ENDPOINTS.filter(({ path }) => !['/api/health', '/api/session/end'].includes(path)).map(
    (endpoint) => [nameOf(endpoint), endpoint] as const,
  );
  it.each(all)('%s is for whom it says', async (_, endpoint) => {
    // What is asked for is not there, or is no body: whoever may ask is told that, and changes nothing.
    const asked = {
      id: '999999',
      ...(endpoint.method === 'GET' ? {} : { body: '{"surely-not-a-field":1}' }),
    };
    const nobody = await call(endpoint, { ...asked, as: null });
    // A device is asked for nothing where the house is opened by a number: 409.
    const open = endpoint.method === 'GET' ? 200 : endpoint.body === undefined ? 409 : 400;
    if (endpoint.who === 'anyone') expect(nobody.status).toBe(open);
    else expect((await refused(nobody)).status).toBe(401);
    for (const role of ROLES) {
      // It would be loaded, and a sample house opens by itself.
      if (endpoint.path === '/api/sample-house' && role === 'keeper') continue;
      const { status, body } = await call(endpoint, { ...asked, as: role });
      // A stream of jobs goes on until its page is left.
      await body?.cancel();
      if (endpoint.who === 'anyone' || mayDo(role, endpoint.who)) expect([401, 403]).not.toContain(status);
      else expect(status, `${role} at ${endpoint.path}`).toBe(403);
    }
    const forged = { cookie: `melto_session=${'A'.repeat(43)}` };
    if (endpoint.who !== 'anyone')
      expect((await call(endpoint, { ...asked, as: null, headers: forged })).status).toBe(401);
  });

  it('is told in a table that the handbook leads to', () => {
    const rows = ENDPOINTS.map(
      ({ method, path, who, says }) => `| ${method} | \`${path}\` | ${who} | ${says} |`,
    );
    const table = ['| | route | who | what |', '|---|---|---|---|', ...rows.sort()].join('\n');
    const file = join(import.meta.dirname, '../../docs/who-may-what.md');
    if (process.env['MELTO_WRITE_TABLE'] === '1')
      writeFileSync(
        file,
        `# Who may what\nEach role may do what the ones before it may: viewer, operator, specialist, keeper. \`web/endpoints\` says it, the routes check it, and \`web/server/api.test.ts\` goes through all of them and compares this table (\`MELTO_WRITE_TABLE=1\` writes it).\n\n${table}\n`,
      );
    expect(readFileSync(file, 'utf8')).toContain(table);
  });
});

describe('a key of a program', () => {
  const KEYS = { method: 'POST', path: '/api/machine-keys' } as const;
  const floor = { method: 'GET', path: '/api/floor' } as const;
  const bearer = (key: string): Record<string, string> => ({ authorization: `Bearer ${key}` });

  it('does what its role may, until it is ended, and is told once', async () => {
    const body = JSON.stringify({ name: 'front end', role: 'operator', days: 30 });
    const made = (await (await call(KEYS, { body })).json()) as { id: number; key: string };
    const as = async (endpoint: Pick<Endpoint, 'method' | 'path'>): Promise<number> =>
      (await call(endpoint, { as: null, headers: bearer(made.key) })).status;
    expect(await as(floor)).toBe(200);
    expect(await as({ method: 'GET', path: '/api/people' })).toBe(403);
    const told = await (await call({ method: 'GET', path: '/api/machine-keys' })).text();
    expect(told).toContain('front end');
    expect(told).not.toContain(made.key);
    expect(told).not.toContain('"usedMs":null');
    await call({ method: 'POST', path: '/api/machine-keys/{id}/end' }, { id: String(made.id) });
    expect(await as(floor)).toBe(401);
    // A browser that is signed in gains nothing by a key that is over.
    expect((await call(floor, { headers: bearer(made.key) })).status).toBe(401);
  });

  it('is never a keeper’s', async () => {
    const body = JSON.stringify({ name: 'all', role: 'keeper', days: 30 });
    expect((await refused(await call(KEYS, { body }))).status).toBe(400);
  });
});

describe('the record of acts', () => {
  const record = async (find: string): Promise<{ what: string; person: string; detail: string }[]> => {
    const response = await call(
      { method: 'GET', path: '/api/acts' },
      { query: `?find=${encodeURIComponent(find)}` },
    );
    return (await response.json()) as { what: string; person: string; detail: string }[];
  };

  it('has each change once, with who made it and what was sent, and none that was refused', async () => {
    const people = { method: 'POST', path: '/api/people' } as const;
    await refused(await call(people, { body: '{"name":" ","role":"viewer"}' }));
    const name = 'Tom Aldous';
    const answer = (await (
      await call(people, { body: JSON.stringify({ name, role: 'operator' }) })
    ).json()) as {
      id: number;
      passphrase: string;
    };
    const change = { method: 'PUT', path: '/api/people/{id}' } as const;
    const given = {
      id: String(answer.id),
      body: JSON.stringify({ name, role: 'viewer' }),
      headers: { 'idempotency-key': 'one' },
    };
    await Promise.all([call(change, given), call(change, given)]);
    const found = await record(name);
    expect(found.map(({ what, person }) => [what, person])).toEqual([
      ['Name a person and say what they may do', 'Ines Marlow'],
      ['Make a person; their first passphrase is told once', 'Ines Marlow'],
    ]);
    expect(JSON.parse(found[0].detail)).toEqual({
      ...{ name, role: 'viewer' },
      changed: { role: ['operator', 'viewer'] },
    });
    expect(await record(answer.passphrase)).toEqual([]);
  });

  it('has what stood there before and after, where it was changed where it stands, and no more', async () => {
    const house = { method: 'PUT', path: '/api/house' } as const;
    const body = {
      timeZone: 'UTC',
      units: 'metric',
      densityStatus: 'T',
      shifts: '06:00, 14:00',
      person: 'Ines Marlow',
    };
    const name = (own: string) => call(house, { body: JSON.stringify({ ...body, name: own }) });
    expect((await name('Tidal Works')).status).toBe(200);
    expect((await name('Marsh Works')).status).toBe(200);
    expect((await name('Marsh Works')).status).toBe(200);
    const details = (await record('Marsh Works')).map(
      ({ detail }) => (JSON.parse(detail) as { changed?: Record<string, unknown> }).changed,
    );
    expect(details.slice(0, 2)).toEqual([undefined, { name: ['Tidal Works', 'Marsh Works'] }]);
  });

  it('has that a code or a passkey was kept, and neither of them', async () => {
    const { secret } = await signIn(services, { name: 'Ines Marlow', passphrase: PASSPHRASE, ...DOOR });
    const own = { as: null, headers: { cookie: `melto_session=${secret}` } } as const;
    const code = { method: 'PUT', path: '/api/desk-code' } as const;
    expect((await call(code, { ...own, body: '{"code":"402913"}' })).status).toBe(200);
    const [act] = await record('Set one’s own code');
    expect(JSON.parse(act.detail)).toEqual({ code: '…' });
    expect(await record('402913')).toEqual([]);
    expect(detailOf({ name: 'Tablet', response: { id: 'abc' } })).toBe('{"name":"Tablet","response":"…"}');
  });

  it('has whoever came in or was refused, and no passphrase', async () => {
    const session = { method: 'POST', path: '/api/session' } as const;
    const body = (passphrase: string) => JSON.stringify({ name: 'Ines Marlow', passphrase });
    expect((await refused(await call(session, { as: null, body: body('no such passphrase') }))).status).toBe(
      401,
    );
    const well = await call(session, { as: null, body: body(PASSPHRASE) });
    expect(well.headers.get('set-cookie')).toMatch(/^melto_session=.{43}; .*HttpOnly.*SameSite=Lax/);
    // A desk is one for a year, by the cookie that it was signed in with.
    const kept = Date.parse(/Expires=([^;]+)/.exec(well.headers.get('set-cookie') ?? '')?.[1] ?? '');
    expect(kept - services.now()).toBeGreaterThan(365 * 86_400_000);
    const whats = (await record('Sign')).map(({ what }) => what);
    expect(whats.slice(0, 2)).toEqual(['Sign in', 'Sign-in refused']);
    expect(await record(PASSPHRASE)).toEqual([]);
  });

  it('cannot be changed, and is handed out as a table', async () => {
    await expect(services.database.change("UPDATE act SET what = 'nothing'")).rejects.toThrow(/not changed/);
    await expect(services.database.change('DELETE FROM act')).rejects.toThrow(/not changed/);
    const file = await call({ method: 'GET', path: '/api/acts/file' });
    expect((await file.text()).split('\r\n')[0]).toBe('at,person,key,from,what,object,sent');
  });
});

describe('a session', () => {
  const floor = { method: 'GET', path: '/api/floor' } as const;

  it('is over where it was signed out, and everywhere where that was asked', async () => {
    const open = async (): Promise<string> =>
      `melto_session=${(await signIn(services, { name: 'Ines Marlow', passphrase: PASSPHRASE, ...DOOR })).secret}`;
    const [one, two, three] = [await open(), await open(), await open()];
    const as = async (cookie: string): Promise<number> =>
      (await call(floor, { as: null, headers: { cookie } })).status;
    const end = (cookie: string, everywhere: boolean): Promise<Response> =>
      call(
        { method: 'POST', path: '/api/session/end' },
        { as: null, headers: { cookie }, body: JSON.stringify({ everywhere }) },
      );
    const response = await end(one, false);
    expect(response.headers.get('set-cookie')).toMatch(/^melto_session=; .*1970/);
    expect([await as(one), await as(two)]).toEqual([401, 200]);
    await end(two, true);
    expect([await as(two), await as(three)]).toEqual([401, 401]);
    cookies.keeper = await open();
  });

  it('is carried back over TLS only where it came so', async () => {
    const body = JSON.stringify({ name: 'Ines Marlow', passphrase: PASSPHRASE });
    const headers = { 'x-forwarded-proto': 'https' };
    const response = await call({ method: 'POST', path: '/api/session' }, { as: null, body, headers });
    expect(response.headers.get('set-cookie')).toContain('; Secure');
  });
});

describe('a house that nobody has yet', () => {
  const first = { method: 'POST', path: '/api/first-person' } as const;
  const body = JSON.stringify({ name: 'Somebody', passphrase: PASSPHRASE });

  it('is taken once, and at its own machine only', async () => {
    expect((await refused(await call(first, { as: null, body }))).status).toBe(409);
    process.env['MELTO_HOSTS'] = 'melto.example';
    const away = await call(first, { as: null, body, headers: { host: 'melto.example' } });
    delete process.env['MELTO_HOSTS'];
    expect((await refused(away)).title).toContain('at the machine itself');
  });

  it('opens to nobody by itself, but the sample house does at its own machine', async () => {
    const floor = { method: 'GET', path: '/api/floor' } as const;
    expect((await call(floor, { as: null })).status).toBe(401);
    await services.database.change('UPDATE house SET sample = 1');
    expect((await call(floor, { as: null })).status).toBe(200);
    for (const host of ['melto.example:3400', '192.168.1.7:3400'])
      expect((await call(floor, { as: null, headers: { host } })).status).toBe(401);
    const from = async (address: string): Promise<number> =>
      (await call(floor, { as: null, headers: { 'x-forwarded-for': address } })).status;
    for (const own of ['127.0.0.1', '::1', '::ffff:127.0.0.1', '8.8.8.8, 127.0.0.2'])
      expect(await from(own)).toBe(200);
    // A proxy on the same machine tells whom it serves, whatever they said of themselves before.
    for (const other of ['192.168.1.20', '127.0.0.1, 192.168.1.20', '::2', '127.0.0.1.evil', 'unknown'])
      expect(await from(other), other).toBe(401);
    process.env['MELTO_HOST'] = '0.0.0.0';
    expect((await call(floor, { as: null })).status).toBe(401);
    delete process.env['MELTO_HOST'];
  });
});

describe('a body that is wrong', () => {
  it.each(WITH_BODY)(
    '%s refuses what is no JSON, no object, or has a field too many',
    async (_, endpoint) => {
      expect((await refused(await call(endpoint, { body: '{"a":' }))).title).toBe('The request is no JSON.');
      for (const body of ['[]', '17', 'null', '"x"', '{"surely-not-a-field":1}'])
        await refused(await call(endpoint, { body }));
      const long = await refused(
        await call(endpoint, { body: `{"x":"${'y'.repeat((endpoint.mostBytes ?? 200_000) + 10_000)}"}` }),
      );
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
    const example = exampleOf(endpoint.query, () => undefined) as Record<string, unknown>;
    const query = `?${new URLSearchParams(Object.entries(example).map(([name, value]) => [name, String(value)])).toString()}`;
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

describe('figures for Prometheus', () => {
  it('count requests by their route, however their addresses look, and say what is up', async () => {
    const reading = { method: 'GET', path: '/api/readings/{id}' } as const;
    for (const id of ['77712388', '77712399']) await refused(await call(reading, { id }));
    const text = await (await call({ method: 'GET', path: '/api/metrics' })).text();
    const counted = text
      .split('\n')
      .filter(
        (line) =>
          line.startsWith('melto_request_seconds_count') &&
          line.includes('route="/api/readings/{id}"') &&
          line.includes('status="404"'),
      );
    expect(counted).toHaveLength(1);
    expect(Number(counted[0].split(' ').at(-1))).toBeGreaterThanOrEqual(2);
    expect(text).not.toContain('777123');
    expect(text).toMatch(/melto_up\{part="database"\} 1/);
    expect(text).toMatch(/melto_up\{part="runner"\} 0/);
    expect(text).toContain('melto_nodejs_eventloop_lag');
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
