// Feeds a run through a running Melto (`./start`, sample house) while its web process and the sensor are killed:
// `SHEETS=600 FEEDS=10 npx tsx bench/feed.ts`; an hour of a reading a second with 720 patches:
// `SHEETS=3600 FEEDS=1 EVERY=1 SHAPE=24x90x3`. Nothing may be lost or doubled.
import { spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { USUAL_SETTINGS } from '@melto/core/press/runSettings';
import { senseSheet } from '@melto/simulator/pressSensor';
import type { PressUnder } from '@melto/simulator/pressSensor';

const ROOT = join(import.meta.dirname, '..');
const BASE = `http://127.0.0.1:${process.env['MELTO_PORT'] ?? '3400'}`;
const SHEETS = Number(process.env['SHEETS'] ?? 300);
const FEEDS = Number(process.env['FEEDS'] ?? 10);
const EVERY = process.env['EVERY'] ?? '0';
const STEP = 60;
/** 12 zones of 32 mm with patches of 5 mm are 72 patches; 24 of 90 mm with 3 mm are 720. */
const [ZONES = 12, ZONE_MM = 32, PATCH_MM = 5] = (process.env['SHAPE'] ?? '')
  .split('x')
  .filter(Boolean)
  .map(Number);
const folder = mkdtempSync(join(tmpdir(), 'melto-feed-'));
const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

async function call<T>(method: string, path: string, body?: unknown): Promise<T> {
  const key = randomUUID();
  for (;;) {
    const answer = await fetch(`${BASE}${path}`, {
      method,
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      headers: { 'content-type': 'application/json', 'idempotency-key': key },
    }).catch(() => undefined);
    if (answer?.ok === true) return (await answer.json()) as T;
    if (answer !== undefined && answer.status < 500) throw new Error(`${path}: ${await answer.text()}`);
    await pause(200);
  }
}

const pidOf = (part: string): number =>
  (JSON.parse(readFileSync(join(ROOT, `var/run/${part}.json`), 'utf8')) as { pid: number }).pid;
const memoryMb = (): number => {
  const status = readFileSync(`/proc/${pidOf('web')}/status`, 'utf8');
  return Number(/VmRSS:\s+(\d+)/.exec(status)?.[1] ?? 0) / 1024;
};

function sensor(feed: number): ChildProcess {
  const state = join(folder, String(feed));
  const asked = ['simulate', 'press', '--server', BASE, '--feed', String(feed), '--every', EVERY];
  return spawn(join(ROOT, 'melto'), [...asked, '--step', String(STEP), '--state', state], {
    stdio: 'inherit',
    detached: true,
  });
}
const kill = (process_: ChildProcess): boolean => process.kill(-(process_.pid ?? 0), 'SIGKILL');

interface Line {
  readonly run: number;
  readonly feed: number;
}
const { rows } = await call<{ rows: { id: number; device: string }[] }>('GET', '/api/floor');
const conditionId = rows.find(({ device }) => device === 'Osprey')?.id;
const [{ id: aimSetId }] = await call<{ id: number }[]>('GET', '/api/aim-sets');
const lines: Line[] = [];
for (let i = 0; i < FEEDS; i++) {
  const job = { jobNumber: `bench ${i}`, title: 'Feed', customer: '', side: '', quantity: 0 };
  const shape = {
    inks: ['K', 'C', 'M', 'Y'],
    zones: ZONES,
    zoneMm: ZONE_MM,
    patchMm: PATCH_MM,
    settings: USUAL_SETTINGS,
  };
  const { id: run } = await call<{ id: number }>('POST', '/api/runs', {
    conditionId,
    aimSetId,
    ...job,
    ...shape,
  });
  const { id: feed } = await call<{ id: number }>('POST', '/api/feeds', {
    name: `bench ${i}`,
    kind: 'sensor',
    byItself: true,
  });
  await call('PUT', `/api/feeds/${feed}/run`, { runId: run, byItself: true });
  lines.push({ run, feed });
}
const sheetsOf = async ({ run }: Line): Promise<number> =>
  (await call<{ sheets: number }>('GET', `/api/runs/${run}/analysis`)).sheets;

const before = memoryMb();
const begun = performance.now();
let sensors = lines.map(({ feed }) => sensor(feed));
const killAt = [0.2, 0.4, 0.6, 0.8];
for (;;) {
  await pause(EVERY === '0' ? 500 : 5000);
  const { sheets: done } = await call<{ sheets: number }>('GET', `/api/runs/${lines[0].run}`);
  if (killAt.length > 0 && done >= killAt[0] * SHEETS) {
    const share = killAt.shift() ?? 1;
    if (share === 0.2 || share === 0.6) process.kill(pidOf('web'), 'SIGKILL');
    else {
      kill(sensors[0]);
      sensors = [sensor(lines[0].feed), ...sensors.slice(1)];
    }
  }
  if (done >= SHEETS) break;
  if (sensors.some(({ exitCode }) => exitCode !== null)) throw new Error('a sensor has ended');
}
const seconds = (performance.now() - begun) / 1000;
for (const one of sensors) kill(one);
await pause(1000);
let wrong = 0;
let all = 0;
for (const line of lines) {
  const { lastImpression } = await call<{ lastImpression: number }>('GET', `/api/runs/${line.run}`);
  const sheets = await sheetsOf(line);
  all += sheets;
  if (sheets !== lastImpression / STEP) wrong++;
}
console.log(
  `${FEEDS} feeds: ${all} sheets of ${ZONES * Math.floor(ZONE_MM / PATCH_MM)} patches in ${seconds.toFixed(0)} s (${(all / seconds).toFixed(1)} a second), web killed twice, a sensor twice:`,
  wrong === 0 ? 'none lost or doubled' : `${wrong} runs lost or doubled sheets`,
  `; web process ${before.toFixed(0)} MB before, ${memoryMb().toFixed(0)} MB after`,
);

// Twice, out of order, and how soon it is to be seen.
const [{ run, feed }] = lines;
const under = await call<PressUnder & { readonly lastImpression: number }>('GET', `/api/feeds/${feed}/under`);
const stream = await fetch(`${BASE}/api/runs/${run}/stream`);
const reader = stream.body?.getReader();
let news: (() => void) | undefined;
void (async () => {
  for (;;) {
    const { done = true } = (await reader?.read()) ?? {};
    if (done) return;
    news?.();
  }
})();
await pause(500);
const delays: number[] = [];
const at = under.lastImpression;
for (const i of [3, 1, 2, 5, 4, 3, 8, 7, 6, 6]) {
  const impression = at + STEP * i;
  const told = new Promise<void>((resolve) => (news = resolve));
  const { state } = await call<{ state: string }>('POST', `/api/feeds/${feed}/readings`, {
    key: `again-${impression}`,
    ...senseSheet(under, impression),
  });
  const arrived = performance.now();
  if (state === 'again') continue;
  await told;
  await call('GET', `/api/runs/${run}`);
  delays.push(performance.now() - arrived);
}
const { strips } = await call<{ strips: { impression: number }[] }>('GET', `/api/runs/${run}`);
const order = strips.slice(-8).map(({ impression }) => (impression - at) / STEP);
console.log(
  `out of order and twice: ${order.join(' ') === '1 2 3 4 5 6 7 8' ? 'each once, in order' : `wrong: ${order.join(' ')}`};`,
  `from arrival to the view ${Math.round(Math.min(...delays))} to ${Math.round(Math.max(...delays))} ms`,
);
for (const line of lines) {
  await call('PUT', `/api/feeds/${line.feed}/removed`, { removed: true });
  await call('PUT', `/api/runs/${line.run}/phase`, { phase: 'finished' });
}
process.exit(wrong === 0 ? 0 : 1);
