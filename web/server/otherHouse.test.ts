import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { createPressChart } from '@melto/services/calibration/pressCharts';
import { makeCurves } from '@melto/services/calibration/curves';
import { proposeLimits } from '@melto/services/calibration/limits';
import { printChart } from '@melto/services/charts/printChart';
import { aimSets, registerPublishedAims } from '@melto/services/conformity/aimSets';
import { registerShippedTolerances } from '@melto/services/conformity/toleranceSets';
import { conditionChoices } from '@melto/services/house/newCondition';
import { beginPaperTrial } from '@melto/services/house/paperTrials';
import { setLogo } from '@melto/services/house/pictures';
import { actingAs } from '@melto/services/kernel/context';
import { takeColourList } from '@melto/services/lists/colourLists';
import { takeLights } from '@melto/services/light/viewingLights';
import { makeMachineKey } from '@melto/services/people/machineKeys';
import { makePerson } from '@melto/services/people/people';
import { claimHouse } from '@melto/services/people/signIn';
import { createFeed, setFeedRun } from '@melto/services/press/feeds';
import { createRun } from '@melto/services/press/runs';
import { USUAL_SETTINGS } from '@melto/core/press/runSettings';
import { keepProfile } from '@melto/services/profile/keptProfiles';
import { named } from '@melto/services/testing/named';
import { byDeviceValues, heronOn, readWedge, TICKS } from '@melto/services/testing/heron';
import { RAMPS_CHART } from '@melto/services/testing/rampsChart';
import { readSheets } from '@melto/services/testing/readSheets';
import { insertPasskey } from '@melto/store/passkeys';
import { openTestServices } from '@melto/services/testing/testServices';
import type { TestServices } from '@melto/services/testing/testServices';
import { ENDPOINTS } from '@/endpoints/all';
import type { Endpoint } from '@/endpoints/endpoint';
import { callHandler } from './testing/callHandler';
import { exampleOf } from './testing/exampleOf';

vi.mock('./pace', () => ({ requirePace: () => Promise.resolve() }));

const ICC = '/usr/share/color/icc';
/** Where each kind of object stands, and what it is called by in addresses, bodies and queries. */
const TABLES: Readonly<Record<string, string>> = {
  conditions: 'printing_condition',
  devices: 'device',
  stocks: 'stock',
  'ink-sets': 'ink_set',
  charts: 'chart',
  sheets: 'sheet',
  readings: 'reading',
  results: 'result',
  'aim-sets': 'aim_set',
  'tolerance-sets': 'tolerance_set',
  instruments: 'instrument',
  pictures: 'picture',
  'kept-profiles': 'kept_profile',
  'source-profiles': 'source_profile',
  people: 'person',
  'machine-keys': 'machine_key',
  passkeys: 'passkey',
  jobs: 'job',
  lights: 'viewing_light',
  'colour-lists': 'colour_list',
  'paper-trials': 'paper_trial',
  runs: 'press_run',
  feeds: 'feed',
};
const FIELDS: Readonly<Record<string, string>> = {
  conditionId: 'conditions',
  deviceId: 'devices',
  stockId: 'stocks',
  readingId: 'readings',
  readingIds: 'readings',
  addedReadingIds: 'readings',
  readings: 'readings',
  profileResultId: 'results',
  aimSetId: 'aim-sets',
  toleranceSetId: 'tolerance-sets',
  sourceId: 'source-profiles',
  stockIds: 'stocks',
  listId: 'colour-lists',
  resultId: 'results',
  runId: 'runs',
  runIds: 'runs',
  fromRunId: 'runs',
};

/** A file for routes that take one: most ask whose it is before they look into it. */
const measured = readFileSync(`${ICC}/FOGRA39L.ti3`, 'utf8');

let services: TestServices;
/** Of the first house: the newest objects of each kind. */
const theirs: Record<string, string[]> = {};
let cookie = '';
/** All that the first house has, before another comes. */
let before: unknown;

beforeAll(async () => {
  services = await openTestServices('melto_other_house');
  process.env['MELTO_DATABASE_URL'] = 'mysql://nowhere';
  globalThis.meltoContext = services;
  await registerShippedTolerances(services);
  await registerPublishedAims(services);
  await fillHouse();
  const { database } = services;
  for (const [kind, table] of Object.entries(TABLES)) {
    const name = kind === 'sheets' ? 'code' : 'id';
    const rows = await database.rows<{ name: string | number }>(
      `SELECT ${name} AS name FROM ${table} ORDER BY id DESC LIMIT 6`,
    );
    expect(rows.length, `a house without ${kind}`).toBeGreaterThan(0);
    theirs[kind] = rows.map((row) => String(row.name));
  }
  const other = await database.change(
    "INSERT INTO house (name, time_zone, made_ms) VALUES ('Other Works', 'UTC', 0)",
  );
  const person = await database.change(
    "INSERT INTO person (house_id, name, role, made_ms) VALUES (?, 'Oda Fenn', 'keeper', 0)",
    [other.id],
  );
  const { secret } = await claimHouse(actingAs(services, { house: other.id, person: person.id }), {
    ...{ name: 'Oda Fenn', passphrase: 'three quiet herons wade', agent: 'test' },
    origin: { keyId: null, origin: '' },
  });
  cookie = `melto_session=${secret}`;
  before = await stateOfFirst();
});
afterAll(async () => {
  globalThis.meltoContext = undefined;
  await services.database.close();
});

/** One object of each kind at least, which nothing of another house may reach. */
async function fillHouse(): Promise<void> {
  const conditionId = await heronOn(services, 'Lantern Gloss 150');
  const { id } = await createPressChart(services, conditionId, RAMPS_CHART);
  await insertPasskey(
    services.database,
    { name: 'Tablet', credential: 'one', publicKey: new Uint8Array(9), counter: 0, transports: '' },
    0,
  );
  const { sheets } = await printChart(services, id, { ticks: TICKS });
  services.time.ms += 4 * 3_600_000;
  const { readingId } = await readSheets(services, sheets);
  await proposeLimits(services, conditionId, readingId);
  await makeCurves(services, conditionId, { readingId, measure: 'sctv' });
  await readWedge(services, conditionId, 'proof', await byDeviceValues(services));
  await setLogo(
    services,
    'logo',
    readFileSync(join(import.meta.dirname, '../../docs/screenshots/floor.png')),
  );
  await keepProfile(
    services,
    { fileName: 'screen.icc', bytes: readFileSync(`${ICC}/sRGB.icc`) },
    { origin: 'maker', note: '' },
  );
  await services.database.change(
    "INSERT INTO source_profile (house_id, digest, name, content, author_id, made_ms) VALUES (1, REPEAT('d', 32), 'Jobs of ours', 'none', 1, 0)",
  );
  await takeLights(services, 'ours.csv', Buffer.from(csvLight()));
  await takeColourList(services, { name: 'Ours' }, { name: 'ours.csv', text: 'name,L,a,b\nred,50,60,30' });
  const [{ id: aimSetId }] = await aimSets(services);
  let runId = 0;
  // A watch wants three runs.
  for (const jobNumber of ['1', '2', '3'])
    ({ id: runId } = await createRun(services, {
      ...{ conditionId, aimSetId, jobNumber, title: 'Ours', customer: '', side: '', quantity: 1 },
      ...{ inks: ['K', 'C', 'M', 'Y'], zones: 12, zoneMm: 32, patchMm: 5, settings: USUAL_SETTINGS },
    }));
  const feed = await createFeed(services, { name: 'Ours', kind: 'sensor', byItself: false });
  await setFeedRun(services, feed.id, { runId, byItself: false });
  const wren = named((await conditionChoices(services)).devices, 'Wren');
  await beginPaperTrial(services, {
    ...{ name: 'Ours', deviceId: wren.id, inkSet: wren.inkSet, mode: 'fine', patches: 200, paper: 'a3' },
    stockIds: wren.stocks.slice(0, 2).map((stock) => stock.id),
    ticks: wren.points.map(({ label }) => label),
  });
  await makeMachineKey(services, 'keeper', { name: 'front end', role: 'viewer', days: 30 });
  await makePerson(services, { name: 'Tom Aldous', role: 'viewer' });
}

/** A light of flat power. */
const csvLight = (): string =>
  ['nm,Ours', ...Array.from({ length: 41 }, (_, i) => `${380 + 10 * i},1`)].join('\n');

/** All that the first house has, each table as one sum. */
async function stateOfFirst(): Promise<unknown> {
  const { database } = services;
  const tables = await database.rows<{ name: string }>(
    "SELECT table_name AS name FROM information_schema.columns WHERE table_schema = DATABASE() AND column_name = 'house_id' AND table_name <> 'act' ORDER BY 1",
  );
  const out: unknown[] = [];
  for (const { name } of tables) {
    const columns = await database.rows<{ name: string }>(
      'SELECT column_name AS name FROM information_schema.columns WHERE table_schema = DATABASE() AND table_name = ? ORDER BY ordinal_position',
      [name],
    );
    const text = columns.map((column) => `IFNULL(MD5(\`${column.name}\`), '-')`).join(', ');
    out.push([
      name,
      ...(await database.rows(
        `SELECT COUNT(*) AS n, SUM(CONV(LEFT(MD5(CONCAT_WS('|', ${text})), 12), 16, 10)) AS total FROM \`${name}\` WHERE house_id = 1`,
      )),
    ]);
  }
  return out;
}

/** An address, a body and a query that name objects of the first house wherever they name one. */
function asked({ path, query, body }: Endpoint, id: string) {
  let named = path.includes('{');
  const own = (field: string): number[] | undefined => {
    const kind = field === 'versionOf' ? path.split('/')[2] : FIELDS[field];
    if (kind === undefined) return undefined;
    named = true;
    return theirs[kind].map(Number);
  };
  const search = new URLSearchParams(
    Object.entries(exampleOf(query, own) as Record<string, unknown>).map(([name, value]) => [
      name,
      String(value),
    ]),
  );
  const isFile = body !== undefined && 'file' in body;
  const text = body === undefined || isFile ? undefined : JSON.stringify(exampleOf(body, own));
  return {
    ...{ id, named },
    query: search.size === 0 ? '' : `?${search.toString()}`,
    body: isFile ? measured : text,
    headers: { cookie, ...(isFile ? { 'content-type': 'application/octet-stream' } : {}) },
  };
}

const NOT_OF_A_HOUSE = ['/api/standard-profiles/{key}/file'];
const endpoints = ENDPOINTS.filter(
  (endpoint) => !NOT_OF_A_HOUSE.includes(endpoint.path) && endpoint.who !== 'anyone',
).map((endpoint) => [`${endpoint.method} ${endpoint.path}`, endpoint] as const);

describe('another house', () => {
  it.each(endpoints)('has nothing of this one by %s', async (name, endpoint) => {
    const ids = endpoint.path.includes('{') ? theirs[endpoint.path.split('/')[2]] : ['0'];
    for (const id of ids) {
      const { named, ...given } = asked(endpoint, id);
      if (!named) return;
      const response = await callHandler(endpoint, given);
      const text = await response.text();
      // A list of what is not there is empty; what a body names is no object of the house.
      if (response.status === 200) expect(text, name).toMatch(/^\{"rows":\[\],/);
      else if (response.status !== 404) expect(text).toMatch(/is not known/);
    }
    expect(await stateOfFirst()).toEqual(before);
  });

  it('has its own by the same routes', async () => {
    const floor = await callHandler({ method: 'GET', path: '/api/floor' }, { headers: { cookie } });
    expect(await floor.json()).toMatchObject({ rows: [] });
  });
});
