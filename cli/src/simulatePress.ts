import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { senseSheet } from '@melto/simulator/pressSensor';
import type { PressUnder } from '@melto/simulator/pressSensor';
import { wholeNumber } from './files.ts';
import { UsageError } from './usageError.ts';

export interface SimulatePressOptions {
  readonly server: string;
  readonly key?: string;
  readonly feed: string;
  readonly every: string;
  readonly step: string;
  readonly sheets?: string;
  readonly state?: string;
}

/** Waits between tries while the server is away, in ms. */
const WAITS = [200, 500, 1000, 2000] as const;
const ANSWER_MS = 10_000;

type Under = PressUnder & { readonly runId: number; readonly lastImpression: number | null };

/**
 * A sensor over a simulated press, a process of its own: it reads a sheet in its turn and delivers it until the server has
 * said that it has it. Killed and started again it goes on after the last sheet that was acknowledged.
 */
export async function simulatePress(options: SimulatePressOptions): Promise<void> {
  const feed = wholeNumber(options.feed, '--feed', 1, Number.MAX_SAFE_INTEGER);
  const step = wholeNumber(options.step, '--step', 1, 100_000);
  const every = Number(options.every);
  if (!(every >= 0 && every <= 3600)) throw new UsageError('--every: expected seconds, 0 to 3600');
  const sheets =
    options.sheets === undefined ? Infinity : wholeNumber(options.sheets, '--sheets', 1, 10_000_000);
  const server = new Server(options.server, options.key ?? process.env['MELTO_KEY']);
  const first = await server.under(feed);
  let impression = startAfter(options.state, first);
  for (let sheet = 0; sheet < sheets; sheet++) {
    const begun = Date.now();
    impression += step;
    const under = sheet === 0 ? first : await server.under(feed);
    if (under.runId !== first.runId)
      throw new UsageError('the feed reads another run now: start the sensor again');
    await server.deliver(feed, { key: `${under.runId}-${impression}`, ...senseSheet(under, impression) });
    keepState(options.state, under.runId, impression);
    await pause(Math.max(0, 1000 * every - (Date.now() - begun)));
  }
  process.stdout.write(`${sheets} sheets delivered, the last at ${impression}\n`);
}

/** The last impression that was acknowledged: as it was remembered for this run, else the run’s last. */
function startAfter(file: string | undefined, { runId, lastImpression }: Under): number {
  if (file !== undefined && existsSync(file)) {
    const [run, impression] = readFileSync(file, 'utf8').split(' ').map(Number);
    if (run === runId && Number.isSafeInteger(impression)) return impression;
  }
  return lastImpression ?? 0;
}

function keepState(file: string | undefined, runId: number, impression: number): void {
  if (file === undefined) return;
  // Whoever is killed in the middle leaves the state before whole.
  writeFileSync(`${file}.new`, `${runId} ${impression}`);
  renameSync(`${file}.new`, file);
}

const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

function refusalOf(text: string): unknown {
  try {
    return JSON.parse(text) ?? {};
  } catch {
    return {};
  }
}

class Server {
  constructor(
    private readonly address: string,
    private readonly secret: string | undefined,
  ) {
    if (!/^https?:\/\//.test(address))
      throw new UsageError('--server: expected an address like http://127.0.0.1:3400');
  }

  under(feed: number): Promise<Under> {
    return this.#ask<Under>(`/api/feeds/${feed}/under`, {});
  }

  async deliver(feed: number, delivery: { readonly key: string }): Promise<void> {
    await this.#ask(`/api/feeds/${feed}/readings`, {
      method: 'POST',
      body: JSON.stringify(delivery),
      headers: { 'content-type': 'application/json', 'idempotency-key': `sensor-${feed}-${delivery.key}` },
    });
  }

  /** One answer to its end; undefined where there was none, or the server went away in the middle of it. */
  async #answer(
    path: string,
    asked: RequestInit,
  ): Promise<{ readonly ok: boolean; readonly status: number; readonly body: unknown } | undefined> {
    try {
      const answer = await fetch(`${this.address}${path}`, {
        ...asked,
        signal: AbortSignal.timeout(ANSWER_MS),
      });
      const { ok, status } = answer;
      const text = await answer.text();
      // What refuses in between, as a gateway does, may say it in other words.
      return { ok, status, body: ok ? (JSON.parse(text) as unknown) : refusalOf(text) };
    } catch {
      return undefined;
    }
  }

  /** Asks until there is an answer; what is refused for good is said. */
  async #ask<T>(path: string, asked: RequestInit): Promise<T> {
    const authorization: Record<string, string> =
      this.secret === undefined ? {} : { authorization: `Bearer ${this.secret}` };
    for (let attempt = 0; ; attempt++) {
      const answer = await this.#answer(path, {
        ...asked,
        headers: { ...(asked.headers as Record<string, string> | undefined), ...authorization },
      });
      if (answer?.ok === true) return answer.body as T;
      if (answer !== undefined && answer.status < 500 && answer.status !== 429) {
        const { title = 'refused', detail = '' } = answer.body as { title?: string; detail?: string };
        throw new UsageError(`${this.address}: ${title} ${detail}`.trim());
      }
      await pause(WAITS[Math.min(attempt, WAITS.length - 1)]);
    }
  }
}
