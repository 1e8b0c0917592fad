// Damaged and hostile files through every address that takes one, over HTTP:
// `COUNT=100000 scripts/withTestDatabase.sh npx tsx bench/hostileUploads.ts` in a folder that is built.
import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, openSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { createRandom } from '@melto/core/numerics/random';
import type { Random } from '@melto/core/numerics/random';
import { createPressChart } from '@melto/services/calibration/pressCharts';
import { printChart } from '@melto/services/charts/printChart';
import { composeServices } from '@melto/services/composition';
import { makeMachineKey } from '@melto/services/people/machineKeys';
import { claimHouse } from '@melto/services/people/signIn';
import { heronOn, TICKS } from '@melto/services/testing/heron';
import { RAMPS_CHART } from '@melto/services/testing/rampsChart';

const ROOT = join(import.meta.dirname, '..');
const COUNT = Number(process.env['COUNT'] ?? 2000);
const SEED = Number(process.env['SEED'] ?? 1);
const AT_ONCE = 6;
/** Requests of a key a minute are counted: many keys stand for many people. */
const KEYS = 40;
const PORT = 4650;
/** A file that is being read is given up after 15 s; what waits before and after comes on top. */
const LIMIT_MS = 30_000;
const ICC = '/usr/share/color/icc';

const url = (process.env['MELTO_TEST_DATABASE_URL'] ?? '').replace(/\/[^/]*$/, '/melto_hostile');
spawnSync('mariadb', [
  ...[
    '--no-defaults',
    '-h',
    '127.0.0.1',
    '-P',
    new URL(url).port,
    '-u',
    'melto',
    `-p${new URL(url).password}`,
  ],
  ...['-e', 'DROP DATABASE IF EXISTS melto_hostile; CREATE DATABASE melto_hostile'],
]);
const env = {
  ...process.env,
  ...{
    MELTO_ROOT: ROOT,
    MELTO_DATABASE_URL: url,
    NODE_ENV: 'production',
    MELTO_COPIES: 'off',
    MELTO_LOG: 'error',
  },
};
spawnSync(process.execPath, [join(ROOT, 'var/cache/server/migrate.mjs')], { cwd: ROOT, env });
const context = composeServices(url, { simulated: true });
const origin = { keyId: null, origin: '' };
await claimHouse(context, { name: 'Ines Marlow', passphrase: 'three quiet herons wade', agent: '', origin });
const keys: string[] = [];
for (let i = 0; i < KEYS; i++)
  keys.push((await makeMachineKey(context, 'keeper', { name: `key ${i}`, role: 'specialist', days: 1 })).key);
const condition = await heronOn(context as never, 'Lantern Gloss 150');
const { id: chart } = await createPressChart(context, condition, RAMPS_CHART);
const [sheet] = (await printChart(context, chart, { ticks: TICKS })).sheets;

const logs = mkdtempSync('/tmp/melto-hostile.');
const out = openSync(join(logs, 'web.log'), 'a');
const web = spawn(
  process.execPath,
  [join(ROOT, 'node_modules/next/dist/bin/next'), 'start', 'web', '-H', '127.0.0.1', '-p', String(PORT)],
  { cwd: ROOT, env, stdio: ['ignore', out, out] },
);
process.on('exit', () => web.kill('SIGKILL'));
const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));
for (let tries = 0; tries < 200; tries++) {
  if (
    await fetch(`http://127.0.0.1:${PORT}/api/health`).then(
      () => true,
      () => false,
    )
  )
    break;
  await pause(100);
}
const memoryMb = (): number =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${web.pid ?? 0}/status`, 'utf8'))?.[1] ?? 0) / 1024;

const TOLD = 'mode=M1&light=5&scale=0';
/** Addresses that take a file; what is written is written into a house that is thrown away. */
const ADDRESSES: readonly string[] = [
  `/api/conditions/${condition}/pictures?name=a.png`,
  '/api/source-profiles?name=a.icc',
  `/api/sheets/${sheet}/reading/preview?mode=M1`,
  `/api/sheets/${sheet}/reading?mode=M1`,
  `/api/conditions/${condition}/measured-chart/preview?mode=M1`,
  `/api/conditions/${condition}/measured-chart?name=a&asRecorded=yes&mode=M1`,
  '/api/measured-files/preview?mode=M1',
  '/api/lights?name=a.csv',
  '/api/colour-lists/preview',
  '/api/colour-lists?name=a&file=a.csv',
  `/api/conditions/${condition}/curves/file?name=a.csv`,
  '/api/kept-profiles?name=a.icc&origin=maker',
  `/api/conditions/${condition}/given-profiles/preview?name=a.icc`,
  '/api/proof-pictures?side=400',
  `/api/aim-sets/file?name=a&${TOLD}`,
];

const text = (words: string): Uint8Array => new TextEncoder().encode(words);
const rows = (count: number, row: (i: number) => string): string =>
  Array.from({ length: count }, (_, i) => row(i)).join('\n');
/** Files that are right, of every kind, and some that are bad from the start. */
const SEEDS: readonly Uint8Array[] = [
  ...['FOGRA39L.ti3', 'Gray.icc', 'LStar-RGB.icc', 'ITULab.icc'].map((name) => readFileSync(join(ICC, name))),
  ...['floor.png', 'desk.png'].flatMap((name) => {
    try {
      return [readFileSync(join(ROOT, 'docs/screenshots', name))];
    } catch {
      return [];
    }
  }),
  text(
    `CGATS.17\nBEGIN_DATA_FORMAT\nSAMPLE_ID CMYK_C CMYK_M CMYK_Y CMYK_K LAB_L LAB_A LAB_B\nEND_DATA_FORMAT\nBEGIN_DATA\n${rows(60, (i) => `${i} ${i} ${100 - i} 0 0 ${95 - i / 2} ${i / 3} ${-i / 4}`)}\nEND_DATA\n`,
  ),
  text(`name,L,a,b\n${rows(80, (i) => `Colour ${i},${20 + i},${i - 40},${40 - i}`)}\n`),
  text(`nm,power\n${rows(81, (i) => `${380 + 5 * i},${(i % 9) / 9}`)}\n`),
  text(`input,C,M,Y,K\n${rows(21, (i) => `${5 * i},${5 * i},${5 * i},${5 * i},${5 * i}`)}\n`),
  text(
    `<?xml version="1.0"?><CxF xmlns="http://colorexchangeformat.com/CxF3-core"><Resources><ObjectCollection>${rows(40, (i) => `<Object Id="${i}" Name="n${i}"><ColorValues><ColorCIELab><L>${50 + i}</L><A>1</A><B>2</B></ColorCIELab></ColorValues></Object>`)}</ObjectCollection></Resources></CxF>`,
  ),
  text('"'.repeat(200_000)),
  text('<a>'.repeat(60_000)),
  text('<!DOCTYPE a [<!ENTITY b "bbbbbbbbbb"><!ENTITY c "&b;&b;&b;&b;&b;&b;&b;&b;">]><CxF>&c;&c;</CxF>'),
  text('__proto__,constructor,L,a,b\n1,2,3,4,5\n'),
  text(`{"a":${'['.repeat(50_000)}`),
  Uint8Array.of(0x50, 0x4b, 3, 4, ...new Array<number>(60).fill(0)),
  gzipSync(new Uint8Array(5e6)),
  new Uint8Array(0),
];

/** A file as damage, haste or malice would have it. */
function damaged(random: Random): Uint8Array {
  const seed = SEEDS[random.below(SEEDS.length)];
  // Large pictures and profiles are cut, so that the reading of them is what takes the time.
  let bytes = Uint8Array.from(seed.subarray(0, 400_000));
  const times = random.below(6);
  for (let i = 0; i < times && bytes.length > 0; i++) {
    const at = random.below(bytes.length);
    switch (random.below(7)) {
      case 0:
        bytes[at] = random.below(256);
        break;
      case 1:
        bytes = bytes.slice(0, at);
        break;
      case 2:
        bytes.fill(0xff, at, at + 4);
        break;
      case 3: {
        const other = SEEDS[random.below(SEEDS.length)].subarray(0, 2000);
        bytes = Uint8Array.from([...bytes.subarray(0, Math.min(at, 3000)), ...other]);
        break;
      }
      case 4:
        bytes.copyWithin(at, 0, Math.min(bytes.length, 300));
        break;
      case 5:
        bytes.set(
          text(
            ['1e308', 'NaN', '-0', '\u0000', '=1+1', '</a>', '\r', '9999999999'][random.below(8)],
          ).subarray(0, Math.max(0, bytes.length - at)),
          at,
        );
        break;
      default:
        bytes[random.below(Math.min(bytes.length, 132))] = random.below(256);
    }
  }
  return bytes;
}

const random = createRandom(SEED);
const counts = new Map<number, number>();
const strange: string[] = [];
let longest = 0;
let sent = 0;
let over = 0;
async function sender(): Promise<void> {
  while (sent < COUNT) {
    const i = sent++;
    const path = ADDRESSES[i % ADDRESSES.length];
    const from = performance.now();
    const status = await fetch(`http://127.0.0.1:${PORT}${path}`, {
      method: 'POST',
      body: damaged(random) as unknown as BodyInit,
      headers: {
        ...{ 'content-type': 'application/octet-stream', authorization: `Bearer ${keys[i % KEYS]}` },
      },
      signal: AbortSignal.timeout(2 * LIMIT_MS),
    }).then(
      async (answer) => {
        const said = await answer.text();
        if (answer.status >= 500 && strange.length < 12) strange.push(`${path}: ${said.slice(0, 200)}`);
        if (said.length > 20_000 && answer.status >= 400 && strange.length < 12)
          strange.push(`${path}: ${said.length} bytes of error`);
        return answer.status;
      },
      (error: unknown) => {
        if (strange.length < 12) strange.push(`${path}: ${String(error)}`);
        return 0;
      },
    );
    const took = performance.now() - from;
    longest = Math.max(longest, took);
    if (took > LIMIT_MS) over++;
    counts.set(status, (counts.get(status) ?? 0) + 1);
    if (i % 5000 === 4999) process.stdout.write(`${i + 1}: ${Math.round(memoryMb())} MB\n`);
  }
}

const idle = memoryMb();
const begun = performance.now();
await Promise.all(Array.from({ length: AT_ONCE }, sender));
const seconds = (performance.now() - begun) / 1000;
await pause(20_000);
process.stdout.write(
  `${COUNT} files in ${Math.round(seconds)} s; answers ${[...counts]
    .sort()
    .map(([status, count]) => `${status}: ${count}`)
    .join(
      ', ',
    )}; the longest ${Math.round(longest)} ms, ${over} over ${LIMIT_MS / 1000} s; ${Math.round(idle)} MB before, ${Math.round(memoryMb())} MB after; ${web.exitCode === null ? 'the server runs' : 'THE SERVER IS GONE'}\n${strange.join('\n')}\n`,
);
if (web.exitCode !== null || over > 0 || strange.length > 0) process.exitCode = 1;
await context.database.close();
web.kill('SIGTERM');
