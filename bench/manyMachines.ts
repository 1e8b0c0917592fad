// Three web processes, two runners and three database nodes on loopback. Fifty readers read fifty sheets at once while a
// web process, a runner and a database node are killed; then the same for limits, curves and profiles.
// `npx tsx bench/manyMachines.ts [readers]` in a folder that is built (`npm run build`); needs galera-4 and rsync.
import { spawn, spawnSync } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { chmodSync, mkdtempSync, openSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import WebSocket from 'ws';
import { BridgeClient } from '@melto/bridge/bridgeClient';
import type { Socket } from '@melto/bridge/bridgeClient';
import { openDatabase } from '@melto/store/database';
import { restoreHouse, saveHouse } from '@melto/services/house/houseFile';
import { setSample } from '@melto/store/houses';
import { createPressChart } from '@melto/services/calibration/pressCharts';
import { printChart } from '@melto/services/charts/printChart';
import { composeServices } from '@melto/services/composition';
import { createChart } from '@melto/services/profile/profilingChart';
import { advanceClock } from '@melto/services/simulated/advanceClock';
import { byDeviceValues, heronOn, HOUR, TICKS } from '@melto/services/testing/heron';
import { RAMPS_CHART } from '@melto/services/testing/rampsChart';
import { readSheets } from '@melto/services/testing/readSheets';
import { printWedge } from '@melto/services/wedges/printWedge';
import { Cluster } from './cluster.ts';

const ROOT = join(import.meta.dirname, '..');
const READERS = Number(process.argv[2] ?? 50);
const WEB_PORTS = [4601, 4602, 4603] as const;
const BRIDGE_PORT = 4610;
const EDITS = 24;
const PROFILES = 4;
const folder = mkdtempSync('/tmp/melto-many.');
chmodSync(folder, 0o755);

const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));
const log = (words: string): void => void process.stdout.write(`${words}\n`);

const cluster = new Cluster(folder, 3);
await cluster.start(0, true);
await cluster.start(1);
await cluster.start(2);
const url = cluster.url;
log(`three nodes, ${url.replace(/:[^:@]*@/, ':…@')}`);

const env = {
  ...process.env,
  ...{ MELTO_ROOT: ROOT, MELTO_DATABASE_URL: url, NODE_ENV: 'production', MELTO_COPIES: 'off' },
  ...{ MELTO_BRIDGE: `ws://127.0.0.1:${BRIDGE_PORT}`, MELTO_BRIDGE_PORT: String(BRIDGE_PORT) },
};
spawnSync(process.execPath, [join(ROOT, 'var/cache/server/migrate.mjs')], {
  cwd: ROOT,
  env,
  stdio: 'inherit',
});
const begin = (name: string, ...args: string[]): ChildProcess => {
  const out = openSync(join(folder, `${name}.log`), 'a');
  return spawn(process.execPath, args, { cwd: ROOT, env, stdio: ['ignore', out, out] });
};
const beginWeb = (i: number): ChildProcess =>
  begin(
    `web${i}`,
    join(ROOT, 'node_modules/next/dist/bin/next'),
    ...['start', 'web', '-H', '127.0.0.1', '-p', String(WEB_PORTS[i]), '--keepAliveTimeout', '70000'],
  );
const beginRunner = (i: number): ChildProcess =>
  begin(`runner${i}`, join(ROOT, 'var/cache/server/runner.mjs'));
const webs = WEB_PORTS.map((_, i) => beginWeb(i));
const runners = [beginRunner(0), beginRunner(1)];
const instruments = begin('instruments', join(ROOT, 'var/cache/server/instruments.mjs'));
const stopAll = async (): Promise<void> => {
  for (const child of [...webs, ...runners, instruments]) child.kill('SIGKILL');
  await cluster.stop();
  rmSync(folder, { recursive: true, force: true });
};
// Nothing is left running where it ends in an error.
process.on('exit', () => {
  for (const child of [...webs, ...runners, instruments]) child.kill('SIGKILL');
  for (const node of cluster.ports.keys()) cluster.kill(node);
});
process.on('SIGINT', () => void stopAll().then(() => process.exit(130)));

const taken: number[] = [];
/** Asks a web process, and another one where it does not answer: as a proxy in front of them does. */
async function call<T>(home: number, method: string, path: string, body?: unknown): Promise<T> {
  const key = randomUUID();
  const from = performance.now();
  for (let tries = 0; ; tries++) {
    const port = WEB_PORTS[(home + tries) % WEB_PORTS.length];
    const answer = await fetch(`http://127.0.0.1:${port}${path}`, {
      method,
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      headers: { 'content-type': 'application/json', 'idempotency-key': key },
      signal: AbortSignal.timeout(30_000),
    }).catch(() => undefined);
    if (answer !== undefined && answer.status < 500) {
      const value = (await answer.json().catch(() => undefined)) as T | undefined;
      if (!answer.ok) throw new Error(`${method} ${path}: ${answer.status} ${JSON.stringify(value)}`);
      if (value !== undefined) {
        taken.push(performance.now() - from);
        return value;
      }
    }
    if (tries > 200) throw new Error(`${method} ${path}: nobody answers`);
    await pause(tries < 3 ? 20 : 200);
  }
}

const share = (sorted: readonly number[], at: number): string =>
  `${Math.round(sorted[Math.min(sorted.length - 1, Math.floor(at * sorted.length))] ?? 0)}`;
function times(what: string): void {
  const sorted = taken.splice(0).sort((a, b) => a - b);
  log(
    `${what}: ${sorted.length} requests, ms at 50 / 95 / 99 % / most: ${[0.5, 0.95, 0.99, 1].map((at) => share(sorted, at)).join(' / ')}`,
  );
}

const context = composeServices(url, { simulated: true });
await setSample(context.database, true);
const condition = await heronOn(context as never, 'Lantern Gloss 150');
const ramps = await createPressChart(context, condition, RAMPS_CHART);
const rampSheets = (await printChart(context, ramps.id, { ticks: TICKS })).sheets;
const chart = await createChart(context, condition, { patches: 400, paper: 'a4', reader: 'strip' });
const chartSheets = (await printChart(context, chart.id, { ticks: TICKS })).sheets;
const judgedBy = await byDeviceValues(context as never);
const sheets: string[] = [];
for (let i = 0; i < READERS; i++)
  sheets.push(
    ...(
      await printWedge(
        context,
        condition,
        { kind: 'proof', paper: 'a4', reader: 'strip', judgedBy },
        { ticks: TICKS },
      )
    ).sheets,
  );
await advanceClock(context, 3 * HOUR);
const { readingId: rampsReading } = await readSheets(context as never, rampSheets);
const { readingId: chartReading } = await readSheets(context as never, chartSheets);
await Promise.all(
  WEB_PORTS.map(async (port) => {
    while (
      !(await fetch(`http://127.0.0.1:${port}/api/health`).then(
        (answer) => answer.ok,
        () => false,
      ))
    )
      await pause(100);
  }),
);
log(`${sheets.length} sheets are printed`);

interface Confirmed {
  readonly attempt: string;
  readonly readingId: number;
}
const confirmed: Confirmed[] = [];
const complete = new Set<number>();

async function reader(i: number, instrument: number): Promise<void> {
  const bridge = new BridgeClient(
    () => new WebSocket(`ws://127.0.0.1:${BRIDGE_PORT}`) as unknown as Socket,
    `many ${i}`,
  );
  const code = sheets[i];
  const { strips } = await call<{ strips: { strip: number; expected: string[] }[] }>(
    i,
    'GET',
    `/api/sheets/${code}`,
  );
  const { offsetMs } = await call<{ offsetMs: number }>(i, 'GET', '/api/house');
  for (const { strip, expected } of strips) {
    const attempt = `${code} ${strip} ${randomUUID().slice(0, 8)}`;
    const { under } = await call<{ under: string }>(
      ...([i, 'GET', `/api/sheets/${code}/under?strip=${strip}&instrument=${instrument}`] as const),
    );
    const pass = await bridge.read({
      ...{ id: attempt, instrument: 'strip-reader-2', mode: 'M1', patches: expected.length, under },
      at: Date.now() + offsetMs,
    });
    if (!pass.ok) throw new Error('the instrument did not read');
    const { startNm, stepNm, spectra } = pass.measured;
    const sent = { attempt, strip, mode: 'M1', instrument, startNm, stepNm, spectra };
    const answer = await call<{ ok: boolean; readingId: number; complete: boolean }>(
      ...([i, 'POST', `/api/sheets/${code}/passes`, sent] as const),
    );
    if (!answer.ok) throw new Error(`strip ${strip} of ${code} is refused`);
    bridge.kept(attempt);
    confirmed.push({ attempt, readingId: answer.readingId });
    if (answer.complete) complete.add(answer.readingId);
  }
}

/** Waits for a count that grows, then does something bad. */
async function when(count: () => number, least: number, what: string, bad: () => void): Promise<void> {
  while (count() < least) await pause(20);
  log(`  ${what} at ${count()}`);
  bad();
}

const { id: instrument } = await call<{ id: number }>(0, 'POST', '/api/instruments', {
  ...{ serial: 'strip-reader-2', name: 'Strip reader 2', kind: 'strip', modes: ['M0', 'M1', 'M2'] },
  ...{ tileLifeMs: 7_200_000, simulated: true },
});
await call(0, 'POST', `/api/instruments/${instrument}/tile`, {});
taken.length = 0;
const strips = sheets.length * 4;
let saving: Promise<unknown> | undefined;
let savedFrom: readonly string[] = [];
const from = performance.now();
await Promise.all([
  ...sheets.map((_, i) => reader(i, instrument)),
  when(
    () => confirmed.length,
    Math.round(0.1 * strips),
    'the house is saved',
    () => {
      savedFrom = confirmed.map(({ attempt }) => attempt);
      saving = saveHouse(url, join(folder, 'house.melto'));
    },
  ),
  when(
    () => confirmed.length,
    Math.round(0.2 * strips),
    'a web process is killed',
    () => webs[0].kill('SIGKILL'),
  ),
  when(
    () => confirmed.length,
    Math.round(0.4 * strips),
    'a runner is killed',
    () => runners[0].kill('SIGKILL'),
  ),
  when(
    () => confirmed.length,
    Math.round(0.5 * strips),
    'a database node is killed',
    () => cluster.kill(0),
  ),
]);
log(`${confirmed.length} strips in ${Math.round(performance.now() - from)} ms`);
times('reading');

async function untilIdle(): Promise<void> {
  for (let tries = 0; tries < 1200; tries++) {
    const left = await context.database.rows("SELECT id FROM job WHERE state IN ('queued', 'running')");
    if (left.length === 0) return;
    await pause(250);
  }
  throw new Error('work is left over');
}
await untilIdle();
const kept = (await context.database.rows<{ attempt: string }>('SELECT attempt FROM strip_reading')).map(
  ({ attempt }) => attempt,
);
const lost = confirmed.filter(({ attempt }) => !kept.includes(attempt)).length;
const twice = kept.length - new Set(kept).size;
const checks = await context.database.rows<{ id: number; checks: number }>(
  `SELECT r.id, (SELECT COUNT(*) FROM result_source s JOIN result c ON c.id = s.result_id
     WHERE s.reading_id = r.id AND c.link = 'conformity') AS checks FROM reading r WHERE r.finished_ms IS NOT NULL`,
);
const ofSheets = checks.filter(({ id }) => complete.has(Number(id)));
const wrong = ofSheets.filter((row) => Number(row.checks) !== 1).length;
log(
  `${lost} lost, ${twice} doubled; ${ofSheets.length} of ${complete.size} sheets judged, ${wrong} not once`,
);

// What was saved meanwhile is whole: all that was confirmed before, nothing that is not, and all of it equal.
await saving;
const copy = url.replace(/\/[^/]*$/, '/melto_copy');
await context.database.change('CREATE DATABASE melto_copy');
await restoreHouse(copy, join(folder, 'house.melto'), join(ROOT, 'store/migrations'));
const restored = openDatabase(copy);
const SUMS = [
  'SELECT attempt AS name, MD5(patch_values) AS sum FROM strip_reading',
  'SELECT id AS name, MD5(CONCAT(summary, detail)) AS sum FROM result',
  'SELECT id AS name, HEX(sha256) AS sum FROM file',
] as const;
let unlike = 0;
let compared = 0;
for (const sql of SUMS) {
  const now = new Map(
    (await context.database.rows<{ name: string; sum: string }>(sql)).map(({ name, sum }) => [
      String(name),
      sum,
    ]),
  );
  const then = await restored.rows<{ name: string; sum: string }>(sql);
  compared += then.length;
  unlike += then.filter(({ name, sum }) => now.get(String(name)) !== sum).length;
  if (sql === SUMS[0]) {
    const names = new Set(then.map(({ name }) => name));
    unlike += savedFrom.filter((attempt) => !names.has(attempt)).length;
    log(
      `saved while 50 read: ${then.length} of ${now.size} strips, ${savedFrom.length} were confirmed before`,
    );
  }
}
await restored.close();
log(`restored: ${compared} strips, results and files, ${unlike} lost or unlike`);

// All parts come back; then versions of one condition are made from all sides, with the same ends.
webs[0] = beginWeb(0);
runners[0] = beginRunner(0);
await cluster.start(0);
log('all parts are back');
let made = 0;
const change = async (i: number, method: string, path: string, body: unknown): Promise<void> => {
  await call(i, method, `/api/conditions/${condition}/${path}`, body);
  made++;
};
await change(0, 'POST', 'limits', { readingId: rampsReading });
made = 0;
await Promise.all([
  ...Array.from({ length: EDITS }, (_, i) =>
    change(i, 'PUT', 'limits', { limits: [0.9, 0.9, 0.9, 0.7 + i / 100], total: 3 }),
  ),
  ...Array.from({ length: EDITS }, (_, i) =>
    change(i, 'POST', 'curves', {
      ...{ readingId: rampsReading, measure: 'tvi' },
      tvi: { points: [{ tone: 0.5, increase: 0.1 + i / 200 }] },
    }),
  ),
  ...Array.from({ length: PROFILES }, (_, i) =>
    change(i, 'POST', 'profiles', {
      ...{ readingId: chartReading, version: 4, tableSize: 'small', namePattern: `many ${i}` },
      separation: { black: 'medium', totalInk: 2.8 + i / 20 },
    }),
  ),
  when(
    () => made,
    8,
    'a web process is killed',
    () => webs[1].kill('SIGKILL'),
  ),
  when(
    () => made,
    16,
    'a database node is killed',
    () => cluster.kill(1),
  ),
  when(
    () => made,
    2 * EDITS + PROFILES,
    'a runner is killed',
    () => runners[1].kill('SIGKILL'),
  ),
]);
times('limits, curves and profiles');
await untilIdle();
const versions = await context.database.rows<{ link: string; count: number; last: number; own: number }>(
  `SELECT link, COUNT(*) AS count, MAX(version) AS last, COUNT(DISTINCT version) AS own FROM result
   WHERE condition_id = ? AND link IN ('limits', 'curves', 'profile') GROUP BY link`,
  [condition],
);
for (const { link, count, last, own } of versions)
  log(`${link}: ${count} versions, the last is v${last}, ${Number(count) - Number(own)} doubled`);
const wanted: Readonly<Record<string, number>> = { limits: EDITS + 1, curves: EDITS, profile: PROFILES };
if (
  lost + twice + wrong + unlike > 0 ||
  versions.length !== 3 ||
  versions.some(({ link, count, last, own }) => [count, last, own].some((n) => Number(n) !== wanted[link]))
)
  process.exitCode = 1;
await context.database.close();
await stopAll();
