import { join } from 'node:path';

/**
 * How long the web server keeps a connection that nothing is asked on: longer than a proxy before it does (60 s as they
 * come), or a request that is sent just when the server closes is lost.
 */
const KEPT_OPEN_MS = 70_000;

/** What starts the web server, for node. */
export const webCommand = (root, host, port) => [
  join(root, 'node_modules/next/dist/bin/next'),
  ...['start', 'web', '-H', host, '-p', port, '--keepAliveTimeout', String(KEPT_OPEN_MS)],
];
