// Kills the parts of a running Melto at bad moments while sheets are read: `npx tsx bench/chaos.ts [kills of each part]`.
// Runs `./start --empty` of this folder, whose house has to be empty: use a fresh clone.
import { spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import WebSocket from 'ws';
import { BridgeClient } from '@melto/bridge/bridgeClient';
import type { Socket } from '@melto/bridge/bridgeClient';
import { conditionChoices, createCondition, DEFAULT_POINTS } from '@melto/services/house/newCondition';
import { composeServices } from '@melto/services/composition';
import { aimSets } from '@melto/services/conformity/aimSets';
import { toleranceSets } from '@melto/services/conformity/toleranceSets';
import { setSample } from '@melto/store/houses';

const ROOT = join(import.meta.dirname, '..');
const PORT = process.env['MELTO_PORT'] ?? '3400';
const BASE = `http://127.0.0.1:${PORT}`;
const PARTS = ['web', 'runner', 'database', 'instruments', 'start'] as const;
const KILLS = Number(process.argv[2] ?? 10);
const BRIDGE = `ws://127.0.0.1:${process.env['MELTO_BRIDGE_PORT'] ?? '3471'}`;
const HOUR_MS = 3_600_000;
const MOST_UP_MS = 10_000;

const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));
const log = (words: string): void => void process.stdout.write(`${words}\n`);

let start: ChildProcess | undefined;
function begin(): void {
  start = spawn(join(ROOT, 'start'), ['--empty'], { cwd: ROOT, stdio: 'ignore', detached: true });
}

async function well(): Promise<boolean> {
  return fetch(`${BASE}/api/health`, { signal: AbortSignal.timeout(2000) }).then(
    (answer) => answer.ok,
    () => false,
  );
}

async function untilWell(mostMs: number): Promise<void> {
  const from = performance.now();
  while (!(await well())) {
    if (performance.now() - from > mostMs) throw new Error(`not up within ${mostMs} ms`);
    await pause(50);
  }
}

/** Sends a change as the interface does: under one key until it is answered. */
async function send<T>(path: string, body: unknown, method = 'POST'): Promise<T> {
  const key = randomUUID();
  for (;;) {
    const answer = await fetch(`${BASE}${path}`, {
      method,
      body: JSON.stringify(body),
      headers: { 'content-type': 'application/json', 'idempotency-key': key },
      signal: AbortSignal.timeout(20_000),
    }).catch(() => undefined);
    if (answer?.ok === true) {
      const value = (await answer.json().catch(() => undefined)) as T | undefined;
      if (value !== undefined) return value;
    } else if (answer !== undefined && answer.status < 500)
      throw new Error(`${method} ${path}: ${answer.status} ${await answer.text().catch(() => '')}`);
    await pause(150);
  }
}

async function ask<T>(path: string): Promise<T> {
  for (;;) {
    // What dies in the middle of its answer is asked again too.
    const value = await fetch(`${BASE}${path}`, { signal: AbortSignal.timeout(20_000) })
      .then(async (answer) => (answer.ok ? ((await answer.json()) as T) : undefined))
      .catch(() => undefined);
    if (value !== undefined) return value;
    await pause(150);
  }
}

interface Confirmed {
  readonly attempt: string;
  readonly readingId: number;
}

let stopping = false;
const confirmed: Confirmed[] = [];
const complete = new Set<number>();

/** Prints wedges and reads them, one after another. */
async function operator(conditionId: number, judgedBy: unknown): Promise<void> {
  const bridge = new BridgeClient(() => new WebSocket(BRIDGE) as unknown as Socket, 'chaos');
  const { id: instrument } = await send<{ id: number }>('/api/instruments', {
    ...{ serial: 'strip-reader-2', name: 'Strip reader 2', kind: 'strip', modes: ['M0', 'M1', 'M2'] },
    ...{ tileLifeMs: 7_200_000, simulated: true },
  });
  const ticks = DEFAULT_POINTS.filter(({ tickAtPrint }) => tickAtPrint).map(({ label }) => label);
  while (!stopping) {
    const wedge = { kind: 'proof', paper: 'a4', reader: 'strip', judgedBy, ticks };
    const { sheets } = await send<{ sheets: string[] }>(`/api/conditions/${conditionId}/wedges`, wedge);
    await send('/api/clock', { byMs: 3 * HOUR_MS });
    for (const code of sheets) {
      const { strips } = await ask<{ strips: { strip: number; expected: string[] }[] }>(
        `/api/sheets/${code}`,
      );
      for (const { strip, expected } of strips) {
        // The other operator moves the clock too, and with it the tile's time.
        for (;;) {
          await send(`/api/instruments/${instrument}/tile`, {});
          const attempt = `${code} ${strip} ${randomUUID().slice(0, 8)}`;
          const { offsetMs } = await ask<{ offsetMs: number }>('/api/house');
          const { under } = await ask<{ under: string }>(
            `/api/sheets/${code}/under?strip=${strip}&instrument=${instrument}`,
          );
          const pass = await bridge.read({
            ...{ id: attempt, instrument: 'strip-reader-2', mode: 'M1', patches: expected.length, under },
            at: Date.now() + offsetMs,
          });
          if (!pass.ok) continue;
          const { startNm, stepNm, spectra } = pass.measured;
          const answer = await send<{ ok: boolean; readingId: number; complete: boolean }>(
            `/api/sheets/${code}/passes`,
            { attempt, strip, mode: 'M1', instrument, startNm, stepNm, spectra },
          );
          bridge.kept(attempt);
          if (!answer.ok) continue;
          confirmed.push({ attempt, readingId: answer.readingId });
          if (answer.complete) complete.add(answer.readingId);
          break;
        }
      }
    }
  }
}

/** The process of a part, where there is one. */
function pidOf(part: string): number | undefined {
  try {
    return (JSON.parse(readFileSync(join(ROOT, `var/run/${part}.json`), 'utf8')) as { pid: number }).pid;
  } catch {
    return undefined;
  }
}

begin();
await untilWell(600_000);
const password = process.env['MELTO_DATABASE_PASSWORD_FILE'] ?? join(ROOT, 'var/database/password');
if (!existsSync(password))
  throw new Error('set MELTO_DATABASE_PASSWORD_FILE to the database’s password file');
const url = `mysql://melto:${readFileSync(password, 'utf8').trim()}@127.0.0.1:${process.env['MELTO_DATABASE_PORT'] ?? '3399'}/melto`;
const context = composeServices(url);
if ((await context.database.rows('SELECT id FROM printing_condition LIMIT 1')).length > 0)
  throw new Error('the house is not empty: run this in a fresh clone');
await setSample(context.database, true);
const heron = (await conditionChoices(context)).devices.find(({ name }) => name === 'Heron');
if (heron === undefined) throw new Error('no Heron');
const conditions: number[] = [];
for (const stock of heron.stocks.slice(0, 2)) {
  const made = { deviceId: heron.id, stockId: stock.id, inkSet: heron.inkSet, mode: 'standard' };
  conditions.push((await createCondition(context, { ...made, points: DEFAULT_POINTS })).id);
}
const [aims] = await aimSets(context);
const [tolerances] = await toleranceSets(context);
const judgedBy = {
  ...{ aimSetId: aims?.id, toleranceSetId: tolerances?.id, substrateCorrected: false },
  through: 'device values',
};
const operators = conditions.map((id) => operator(id, judgedBy));
const failed = Promise.all(operators).catch((error: unknown) => {
  log(String(error));
  process.exitCode = 1;
  stopping = true;
});

for (const part of PARTS) {
  const times: number[] = [];
  for (let i = 0; i < KILLS && !stopping; i++) {
    await pause(300 + Math.random() * 2200);
    const killed = pidOf(part);
    if (killed === undefined) throw new Error(`no ${part} is running`);
    // A new start stops what the old one left and begins all parts anew.
    const replaced = part === 'start' ? pidOf('web') : killed;
    const from = performance.now();
    process.kill(killed, 'SIGKILL');
    if (part === 'start') begin();
    // Another process of the part, and a house that answers: what is left of the old one may answer for a while.
    const after = part === 'start' ? 'web' : part;
    while (pidOf(after) === undefined || pidOf(after) === replaced) await pause(20);
    await untilWell(60_000);
    times.push(performance.now() - from);
  }
  const most = Math.max(...times);
  log(
    `${part}: killed ${times.length} times, up again after ${Math.round(Math.min(...times))} to ${Math.round(most)} ms`,
  );
  if (most > MOST_UP_MS) process.exitCode = 1;
}
stopping = true;
await failed;
for (let tries = 0; tries < 240; tries++) {
  const left = await context.database.rows("SELECT id FROM job WHERE state IN ('queued', 'running')");
  if (left.length === 0) break;
  await pause(500);
}
const kept = new Set(
  (await context.database.rows<{ attempt: string }>('SELECT attempt FROM strip_reading')).map(
    ({ attempt }) => attempt,
  ),
);
const lost = confirmed.filter(({ attempt }) => !kept.has(attempt));
const checks = await context.database.rows<{ id: number; checks: number }>(
  `SELECT r.id, (SELECT COUNT(*) FROM result_source s JOIN result c ON c.id = s.result_id
     WHERE s.reading_id = r.id AND c.link = 'conformity') AS checks
   FROM reading r WHERE r.finished_ms IS NOT NULL`,
);
const unjudged = checks.filter((row) => Number(row.checks) === 0);
const doubled = checks.filter((row) => Number(row.checks) > 1);
log(
  `${confirmed.length} strips confirmed, ${lost.length} lost; ${checks.length} complete readings, ${unjudged.length} unjudged, ${doubled.length} judged twice`,
);
if (
  lost.length + unjudged.length + doubled.length > 0 ||
  [...complete].some((id) => !checks.some((row) => Number(row.id) === id))
)
  process.exitCode = 1;
await context.database.close();
start?.kill('SIGTERM');
