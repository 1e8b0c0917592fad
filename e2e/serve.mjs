// Serves the built application over an empty schema for the end-to-end tests; POST to the port above it ends and starts its parts.
import { spawn } from 'node:child_process';
import { createServer } from 'node:http';
import { join } from 'node:path';
import mysql from 'mysql2/promise';
import { webCommand } from '../scripts/webCommand.mjs';

const {
  MELTO_ROOT: root,
  MELTO_E2E_ADMIN_URL: adminUrl,
  MELTO_E2E_DATABASE: database,
  MELTO_PORT: port,
} = process.env;
const admin = await mysql.createConnection(adminUrl);
await admin.query(`DROP DATABASE IF EXISTS ${database}`);
await admin.query(`CREATE DATABASE ${database}`);

const run = (file, ...args) => spawn(process.execPath, [file, ...args], { cwd: root, stdio: 'inherit' });
const ended = (child) => new Promise((resolve) => child.once('exit', resolve));
await ended(run(join(root, 'var/cache/server/migrate.mjs')));
const own = process.env.MELTO_SIMULATOR === 'off';
if (!own) {
  // The clock starts at one time, ahead of any real one, and prints come from one seed: drift and variation are the same in each run.
  await admin.query(
    `INSERT INTO ${database}.setting (house_id, name, value) VALUES (1, 'clock-offset-ms', ?)`,
    [String(Date.UTC(2040, 2, 5, 8) - Date.now())],
  );
  // Only a sample house has a clock that can be moved.
  await admin.query(`UPDATE ${database}.house SET sample = 1`);
}
await admin.end();
const serve = () => run(...webCommand(root, '127.0.0.1', port));
const bridgePort = Number(port) + 2;
process.env.MELTO_BRIDGE_PORT = String(bridgePort);
if (!own) process.env.MELTO_BRIDGE = `ws://127.0.0.1:${bridgePort}`;
const instruments = () => (own ? undefined : run(join(root, 'var/cache/server/instruments.mjs')));
let bridge = instruments();
let web = serve();
let runner = run(join(root, 'var/cache/server/runner.mjs'));

// The tests kill the server in the middle of a sheet and start it again.
const control = createServer(async (request, response) => {
  if (request.url === '/kill-web') {
    web.kill('SIGKILL');
    await ended(web);
  } else if (request.url === '/start-web') web = serve();
  else if (request.url === '/kill-runner') {
    runner.kill('SIGKILL');
    await ended(runner);
    runner = run(join(root, 'var/cache/server/runner.mjs'));
  } else if (request.url === '/kill-bridge') {
    bridge?.kill('SIGKILL');
    bridge = instruments();
  }
  response.end('done');
}).listen(Number(port) + 1, '127.0.0.1');

process.on('SIGTERM', () => {
  web.kill();
  runner.kill();
  bridge?.kill();
  control.close();
  process.exit(0);
});
