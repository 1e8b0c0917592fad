// Starts the parts of Melto (database, runner, web, simulated instruments), watches them and starts again what ends; stops all with itself.
// What an earlier start left behind when it was killed is recognised by its record in var/run and stopped first.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, openSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { webCommand } from './webCommand.mjs';

const root = process.env.MELTO_ROOT;
const host = process.env.MELTO_HOST || '127.0.0.1';
const port = process.env.MELTO_PORT || '3400';
const databasePort = process.env.MELTO_DATABASE_PORT || '3399';
const databaseFolder = process.env.MELTO_DATABASE_FOLDER;
const bridgePort = process.env.MELTO_BRIDGE_PORT || '3471';
/** Simulated instruments stand where the simulator is; real ones have a bridge of their own beside them. */
const simulated = process.env.MELTO_SIMULATOR !== 'off';
const sample = process.argv.includes('--sample-house');
const records = join(root, 'var/run');
const logs = join(root, 'var/log');
for (const folder of [records, logs]) mkdirSync(folder, { recursive: true });

const LONGEST_PAUSE_MS = 3000;
/** A part that ran this long has started well: the next end is a new one. */
const SETTLED_MS = 20_000;
/** How long a part may take to stop. Web server and runner hold nothing that is not stored; open pages would keep them. */
const STOP_MS = { database: 15_000, runner: 3000, web: 1000, instruments: 1000 };

/** In the order in which they are stopped. */
const PARTS = ['web', 'runner', 'instruments', 'database'];

const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** When a process began, in ticks since boot: with its number it names a process for good. */
function begun(pid) {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
    const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
    return fields[0] === 'Z' ? undefined : fields[19];
  } catch {
    return undefined;
  }
}

const recordOf = (name) => join(records, `${name}.json`);
const remember = (name, pid) => writeFileSync(recordOf(name), JSON.stringify({ pid, begun: begun(pid) }));
const forget = (name) => rmSync(recordOf(name), { force: true });

/** The process of a record, where it is still the same one. */
function alive(name) {
  if (!existsSync(recordOf(name))) return undefined;
  try {
    const { pid, begun: then } = JSON.parse(readFileSync(recordOf(name), 'utf8'));
    return then !== undefined && begun(pid) === then ? pid : undefined;
  } catch {
    return undefined;
  }
}

async function end(pid, name) {
  try {
    process.kill(pid, 'SIGTERM');
  } catch {
    return;
  }
  const until = Date.now() + STOP_MS[name];
  while (begun(pid) !== undefined && Date.now() < until) await pause(50);
  if (begun(pid) === undefined) return;
  console.error(`${name} did not stop within ${STOP_MS[name] / 1000} s and is ended`);
  process.kill(pid, 'SIGKILL');
  while (begun(pid) !== undefined) await pause(50);
}

const other = alive('start');
if (other !== undefined) {
  console.error(`Melto runs already (process ${other}) at http://${host}:${port}`);
  process.exit(1);
}
remember('start', process.pid);

let stopping = false;
const running = new Map();

/** Runs a part for as long as Melto runs. */
async function keep(name, start) {
  for (let failures = 0; !stopping;) {
    const from = Date.now();
    const child = start();
    running.set(name, child);
    remember(name, child.pid);
    const how = await new Promise((resolve) => {
      child.once('error', (error) => resolve(error.message));
      child.once('exit', (code, signal) => resolve(signal ?? `code ${code}`));
    });
    running.delete(name);
    forget(name);
    if (stopping) return;
    failures = Date.now() - from > SETTLED_MS ? 1 : failures + 1;
    const waitMs = Math.min(LONGEST_PAUSE_MS, 100 * 2 ** failures);
    console.error(`The ${name} ended (${how}) and is started again; var/log/${name}.log tells more`);
    await pause(waitMs);
  }
}

const log = (name) => openSync(join(logs, `${name}.log`), 'a');
const node = (name, file, ...args) =>
  spawn(process.execPath, [file, ...args], {
    cwd: root,
    env: process.env,
    stdio: ['ignore', log(name), log(name)],
    detached: true,
  });

async function stop(code) {
  if (stopping) return;
  stopping = true;
  for (const name of PARTS) {
    const child = running.get(name);
    if (child?.pid !== undefined) await end(child.pid, name);
  }
  forget('start');
  process.exit(code);
}
process.on('SIGTERM', () => void stop(0));
process.on('SIGINT', () => void stop(130));

for (const name of PARTS) {
  const pid = alive(name);
  if (pid === undefined) continue;
  console.log(`Stopping the ${name} that an earlier start left behind`);
  await end(pid, name);
  forget(name);
}

if (databaseFolder !== undefined) {
  void keep('database', () =>
    spawn('bash', [join(root, 'scripts/database.sh'), databaseFolder, databasePort], {
      stdio: ['ignore', log('database'), log('database')],
      detached: true,
    }),
  );
  const ready = spawnSync(
    'bash',
    [join(root, 'scripts/databaseReady.sh'), databaseFolder, databasePort, '60'],
    {
      encoding: 'utf8',
    },
  );
  if (ready.status !== 0) {
    console.error(ready.stderr.trim());
    await stop(1);
  }
  process.env.MELTO_DATABASE_URL = ready.stdout.trim();
}

const migrated = spawnSync(
  process.execPath,
  [join(root, 'var/cache/server/migrate.mjs'), ...(sample ? ['--sample-house'] : [])],
  { cwd: root, stdio: 'inherit' },
);
if (migrated.status !== 0) await stop(1);

process.env.MELTO_COPIES ??= join(root, 'var/copies');

if (simulated) {
  process.env.MELTO_BRIDGE = `ws://127.0.0.1:${bridgePort}`;
  process.env.MELTO_BRIDGE_PORT = bridgePort;
  process.env.MELTO_BRIDGE_JOURNAL = join(records, 'passes.jsonl');
  void keep('instruments', () => node('instruments', join(root, 'var/cache/server/instruments.mjs')));
}
void keep('runner', () => node('runner', join(root, 'var/cache/server/runner.mjs')));
void keep('web', () => node('web', ...webCommand(root, host, port)));

const address = `http://${host}:${port}`;
for (let tries = 0; tries < 300; tries++) {
  const well = await fetch(`http://127.0.0.1:${port}/api/health`).then(
    (answer) => answer.ok,
    () => false,
  );
  if (well) break;
  await pause(100);
}
console.log(`Melto is at ${address}`);
