import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { designBar } from '@melto/core/press/colourBar';
import { processUnit } from '@melto/core/press/pressUnit';
import { unwrap } from '@melto/core/result';
import { encodePress } from '@melto/simulator/pressSensor';
import { simulatePress } from './simulatePress.ts';

const bar = unwrap(designBar([processUnit('K')], { zones: 2, zoneMm: 32, patchMm: 5 }));
const simulated = encodePress({
  ...{
    device: 'osprey',
    stock: 'lantern-gloss-150',
    mode: '175 lpi',
    seed: 1,
    channels: [3],
    unevenStart: 0.05,
  },
});

/** A server that holds what it is sent, and answers badly as often as it is told. */
let server: Server;
let address = '';
let received: { readonly key: string; readonly impression: number; readonly patches: readonly unknown[] }[] =
  [];
let answers: (number | 'no answer' | 'half an answer' | 'no JSON')[] = [];
let runId = 4;
let authorization = '';
beforeEach(async () => {
  [received, answers, runId] = [[], [], 4];
  server = createServer((request, response) => {
    const chunks: Buffer[] = [];
    authorization = request.headers.authorization ?? '';
    request.on('data', (chunk: Buffer) => chunks.push(chunk));
    request.on('end', () => {
      const tell = (status: number, body: object): void => {
        response.writeHead(status, { 'content-type': 'application/json' });
        response.end(JSON.stringify(body));
      };
      if (request.method === 'GET')
        return tell(200, { runId, simulated, bar, mode: 'M1', moves: [], lastImpression: 120 });
      received.push(JSON.parse(Buffer.concat(chunks).toString()) as (typeof received)[number]);
      const answer = answers.shift() ?? 200;
      if (answer === 'no answer') return request.socket.destroy();
      if (answer === 'no JSON') return response.writeHead(403).end('<p>no</p>');
      if (answer === 'half an answer') {
        response.writeHead(200, { 'content-type': 'application/json', 'content-length': 40 });
        return response.write('{"state":', () => request.socket.destroy());
      }
      return tell(answer, answer === 200 ? { state: 'taken' } : { title: 'Not now.', detail: 'Why.' });
    });
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterEach(() => new Promise((resolve) => server.close(resolve)));

const run = (options: object = {}): Promise<void> =>
  simulatePress({
    server: address,
    feed: '9',
    every: '0',
    step: '60',
    sheets: '2',
    key: 'secret',
    ...options,
  });

describe('the sensor over a simulated press', () => {
  it('goes on after the run’s last sheet, with a key of its own for each', async () => {
    await run();
    expect(received.map(({ key, impression }) => `${key} ${impression}`)).toEqual(['4-180 180', '4-240 240']);
    expect(received[0].patches.length).toBe(bar.patches.length);
    expect(authorization).toBe('Bearer secret');
  });

  it('delivers the same again until it hears that it was taken', async () => {
    answers = ['no answer', 503];
    await run({ sheets: '1' });
    expect(received).toHaveLength(3);
    expect(new Set(received.map((one) => JSON.stringify(one))).size).toBe(1);
  });

  it('delivers it again where the server went away in the middle of its answer, and ends where it is refused', async () => {
    answers = ['half an answer'];
    await run({ sheets: '1' });
    expect(received).toHaveLength(2);
    answers = ['no JSON'];
    await expect(run({ sheets: '1' })).rejects.toThrow('refused');
  });

  it('remembers how far it came, for its run', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'melto-sensor-'));
    const state = join(folder, 'state');
    await run({ state, sheets: '1' });
    expect(readFileSync(state, 'utf8')).toBe('4 180');
    writeFileSync(state, '4 600');
    await run({ state, sheets: '1' });
    writeFileSync(state, '3 600');
    await run({ state, sheets: '1' });
    expect(received.map(({ impression }) => impression)).toEqual([180, 660, 180]);
    rmSync(folder, { recursive: true });
  });

  it('says what is refused for good, and what was typed wrongly', async () => {
    answers = [409];
    await expect(run()).rejects.toThrow('Not now. Why.');
    expect(received).toHaveLength(1);
    await expect(run({ server: 'melto' })).rejects.toThrow('--server');
    await expect(run({ every: '-1' })).rejects.toThrow('--every');
    await expect(run({ every: '3601' })).rejects.toThrow('--every');
    await expect(run({ feed: 'x' })).rejects.toThrow('--feed');
    await expect(run({ step: '0' })).rejects.toThrow('--step');
  });

  it('ends where its feed is pointed at another run', async () => {
    const ended = run({ sheets: '3', every: '0.05' });
    await new Promise((resolve) => setTimeout(resolve, 20));
    runId = 5;
    await expect(ended).rejects.toThrow('reads another run');
  });
});
