import { spawn, spawnSync } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const ROOT = join(import.meta.dirname, '..');
const PROVIDER = '/usr/lib/galera/libgalera_smm.so';

/** A MariaDB Galera cluster on loopback, for benches. */
export class Cluster {
  readonly ports: readonly number[];
  readonly #nodes: (ChildProcess | undefined)[] = [];
  #password = '';

  /** @param nodes how many; each takes a port for SQL and three beside it. */
  constructor(
    private readonly folder: string,
    nodes: number,
    first = 4500,
  ) {
    if (!existsSync(PROVIDER)) throw new Error('galera-4 is not installed');
    this.ports = Array.from({ length: nodes }, (_, i) => first + 10 * i);
  }

  get url(): string {
    return `mysql://melto:${this.#password}@${this.ports.map((port) => `127.0.0.1:${port}`).join(',')}/melto`;
  }

  /** Starts a node; the first one begins the cluster, others join and take what it has. */
  async start(node: number, begins = false): Promise<void> {
    const folder = join(this.folder, `node${node}`);
    mkdirSync(folder, { recursive: true, mode: 0o755 });
    if (this.#password !== '') writeFileSync(join(folder, 'password'), this.#password, { mode: 0o600 });
    const port = this.ports[node];
    const peers = this.ports.map((other) => `127.0.0.1:${other + 1}`).join(',');
    this.#nodes[node] = spawn(
      'bash',
      [
        ...[join(ROOT, 'scripts/database.sh'), folder, String(port)],
        ...['--wsrep-on=ON', `--wsrep-provider=${PROVIDER}`, '--wsrep-cluster-name=melto'],
        `--wsrep-cluster-address=gcomm://${begins ? '' : peers}`,
        `--wsrep-node-address=127.0.0.1:${port + 1}`,
        `--wsrep-provider-options=base_host=127.0.0.1;base_port=${port + 1};gmcast.listen_addr=tcp://127.0.0.1:${port + 1};ist.recv_addr=127.0.0.1:${port + 2};gcache.size=64M`,
        ...['--wsrep-sst-method=rsync', `--wsrep-sst-receive-address=127.0.0.1:${port + 3}`],
        ...['--binlog-format=ROW', '--innodb-autoinc-lock-mode=2', '--innodb-flush-log-at-trx-commit=2'],
      ],
      { stdio: 'ignore', detached: true },
    );
    for (let tries = 0; tries < 300; tries++) {
      if (existsSync(join(folder, 'password')) && this.stateOf(node) === 'Synced') {
        this.#password = readFileSync(join(folder, 'password'), 'utf8').trim();
        return;
      }
      await new Promise((resolve) => setTimeout(resolve, 200));
    }
    throw new Error(`node ${node} did not join: ${join(folder, 'data/error.log')}`);
  }

  stateOf(node: number): string {
    const password = readFileSync(join(this.folder, `node${node}`, 'password'), 'utf8').trim();
    const { stdout } = spawnSync(
      'mariadb',
      [
        ...['--no-defaults', '-h', '127.0.0.1', '-P', String(this.ports[node]), '-u', 'melto', '-N', '-e'],
        "SHOW STATUS LIKE 'wsrep_local_state_comment'",
      ],
      { encoding: 'utf8', env: { ...process.env, MYSQL_PWD: password } },
    );
    return stdout.split('\t')[1]?.trim() ?? '';
  }

  kill(node: number): void {
    this.#nodes[node]?.kill('SIGKILL');
    this.#nodes[node] = undefined;
  }

  async stop(): Promise<void> {
    const all = this.#nodes.filter((child) => child !== undefined);
    await Promise.all(
      all.map((child) => {
        const ended = new Promise((resolve) => child.once('exit', resolve));
        child.kill('SIGTERM');
        return ended;
      }),
    );
  }
}
