// Serves the built application over an empty schema for the end-to-end tests; POST to the port above it restarts the web server.
import { spawn } from 'node:child_process';
import { createServer } from 'node:http';
import { join } from 'node:path';
import mysql from 'mysql2/promise';

const { MELTO_ROOT: root, MELTO_E2E_ADMIN_URL: adminUrl, MELTO_PORT: port } = process.env;
const admin = await mysql.createConnection(adminUrl);
await admin.query('DROP DATABASE IF EXISTS melto_e2e');
await admin.query('CREATE DATABASE melto_e2e');
await admin.end();

const run = (file, ...args) => spawn(process.execPath, [file, ...args], { cwd: root, stdio: 'inherit' });
const ended = (child) => new Promise((resolve) => child.once('exit', resolve));
await ended(run(join(root, 'var/cache/server/migrate.mjs')));
const serve = () =>
  run(join(root, 'node_modules/next/dist/bin/next'), 'start', 'web', '-H', '127.0.0.1', '-p', port);
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
  }
  response.end('done');
}).listen(Number(port) + 1, '127.0.0.1');

process.on('SIGTERM', () => {
  web.kill();
  runner.kill();
  control.close();
  process.exit(0);
});
