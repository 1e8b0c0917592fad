import { mkdtempSync, readFileSync, rmSync, writeFileSync, appendFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { Ajv2020 as Ajv } from 'ajv/dist/2020.js';
import WebSocket from 'ws';
import { allowedOrigin } from './allowedOrigin.ts';
import { BridgeClient } from './bridgeClient.ts';
import type { Socket } from './bridgeClient.ts';
import { conformance } from './conformance/conformance.ts';
import { RawDesk } from './conformance/rawDesk.ts';
import { protocolSchema } from './schema.ts';
import { PassJournal } from './passJournal.ts';
import type { Measured, ReadMessage } from './protocol.ts';
import { serveBridge } from './serveBridge.ts';
import type { Bridge, BridgeInstrument, BridgeOptions, Passed } from './serveBridge.ts';
import { simulatedBridgeInstruments } from './simulated/simulatedBridge.ts';
import { underForChecks } from './simulated/underForChecks.ts';

const GREY: Passed = { startNm: 380, stepNm: 10, spectra: [Array.from({ length: 36 }, () => 0.5)] };

/** An instrument that passes when the test says so. */
function handHeld(serial = 'H-1') {
  let give: (passed: Passed) => void = () => undefined;
  let passes = 0;
  const instrument: BridgeInstrument = {
    info: {
      serial,
      name: 'Hand',
      kind: 'strip',
      modes: ['M0', 'M1'],
      begins: 'at-instrument',
      tileLifeMs: 60_000,
    },
    calibrate: async () => undefined,
    read: (_, { armed, signal }) =>
      new Promise((resolve) => {
        passes++;
        give = resolve;
        armed();
        signal.addEventListener('abort', () => resolve({ reason: 'cancelled' }));
      }),
  };
  return { instrument, draw: (passed = GREY) => give(passed), passes: () => passes };
}

const bridges: Bridge[] = [];
const clients: BridgeClient[] = [];
async function serve(
  instruments: readonly BridgeInstrument[],
  more: Partial<BridgeOptions> = {},
): Promise<Bridge> {
  const bridge = await serveBridge({ port: 0, name: 'Test', instruments, ...more });
  bridges.push(bridge);
  return bridge;
}
function clientOf(address: string): BridgeClient {
  const client = new BridgeClient(() => new WebSocket(address) as unknown as Socket);
  clients.push(client);
  return client;
}
const request = (id: string, change: Partial<ReadMessage> = {}): Omit<ReadMessage, 'type'> => ({
  ...{ id, instrument: 'H-1', mode: 'M1', patches: 1, at: 1000 },
  ...change,
});

afterEach(async () => {
  for (const client of clients.splice(0)) client.close();
  await Promise.all(bridges.splice(0).map((bridge) => bridge.close()));
  vi.useRealTimers();
});

describe('the conformance test', () => {
  it.each([0, 20])('passes against the simulated instruments, with a pace of %i ms', async (pace) => {
    const { address } = await serve(simulatedBridgeInstruments(pace));
    const findings = await conformance({ address, patches: 20, under: underForChecks(20) });
    expect(findings.filter(({ wrong }) => wrong !== undefined)).toEqual([]);
    expect(findings.length).toBe(14);
  });

  it('finds what a careless bridge does', async () => {
    const careless: BridgeInstrument = {
      ...handHeld().instrument,
      info: { ...handHeld().instrument.info, begins: 'when-asked' },
      // One patch too few.
      read: async ({ patches }) => ({
        ...GREY,
        spectra: Array.from({ length: patches - 1 }, () => GREY.spectra[0]),
      }),
    };
    const { address } = await serve([careless]);
    const wrong = (await conformance({ address, patches: 20 })).filter(
      (finding) => finding.wrong !== undefined,
    );
    expect(wrong[0]?.wrong).toBe('it has 19 patches, not 20');
    expect(wrong.map(({ name }) => name)).toContain('reads a strip, and gives the same pass for the same id');
    const none = await serve([]);
    expect((await conformance({ address: none.address, patches: 1 })).map(({ wrong }) => wrong)).toEqual([
      'it offers no instrument',
    ]);
    const nobody = await conformance({ address: 'ws://127.0.0.1:1', patches: 1 });
    expect(nobody).toHaveLength(1);
    expect(nobody[0].wrong).toContain('ECONNREFUSED');
  });
});

describe('a desk and its bridge', () => {
  it('see each other, arm, and pass; what was kept is forgotten', async () => {
    const hand = handHeld();
    const { address } = await serve([hand.instrument]);
    const client = clientOf(address);
    await vi.waitFor(() => expect(client.view).toMatchObject({ phase: 'connected', bridge: 'Test' }));
    expect(client.view.instruments.map(({ serial }) => serial)).toEqual(['H-1']);
    const armed = vi.fn();
    const pass = client.read(request('a'), { onArmed: armed });
    await vi.waitFor(() => expect(armed).toHaveBeenCalledOnce());
    hand.draw();
    expect(await pass).toMatchObject({ ok: true, measured: { id: 'a', spectra: GREY.spectra } });
    const later = clientOf(address);
    await vi.waitFor(() => expect(later.view.waiting).toEqual(['a']));
    later.kept('a');
    expect(later.view.waiting).toEqual([]);
    const last = clientOf(address);
    await vi.waitFor(() => expect(last.view.phase).toBe('connected'));
    await vi.waitFor(() => expect(last.view.waiting).toEqual([]));
  });

  it('go on with a pass after the line broke, as one pass', async () => {
    const hand = handHeld();
    const { address } = await serve([hand.instrument]);
    const sockets: WebSocket[] = [];
    const client = new BridgeClient(() => {
      const socket = new WebSocket(address);
      sockets.push(socket);
      return socket as unknown as Socket;
    });
    clients.push(client);
    const armed = vi.fn();
    const pass = client.read(request('a'), { onArmed: armed });
    await vi.waitFor(() => expect(armed).toHaveBeenCalledTimes(1));
    sockets[0].terminate();
    // Told again where it stands.
    await vi.waitFor(() => expect(armed).toHaveBeenCalledTimes(2));
    hand.draw();
    expect((await pass).ok).toBe(true);
    expect(hand.passes()).toBe(1);
  });

  it('end a pass that no desk came back to within the grace, and none sooner', async () => {
    const hand = handHeld();
    const { address } = await serve([hand.instrument], { graceMs: 150 });
    const leave = async (id: string): Promise<void> => {
      const { desk } = await RawDesk.greeted(address);
      desk.say({ type: 'read', ...request(id) });
      await desk.hears(['armed']);
      desk.close();
      await desk.ends();
    };
    await leave('left');
    const { desk } = await RawDesk.greeted(address);
    desk.say({ type: 'read', ...request('b') });
    expect((await desk.hears(['failed'])).reason).toBe('busy');
    await new Promise((resolve) => setTimeout(resolve, 250));
    desk.say({ type: 'read', ...request('c') });
    await desk.hears(['armed']);
    desk.close();
  });

  it('cancel a pass at once, and read another', async () => {
    const hand = handHeld();
    const { address } = await serve([hand.instrument]);
    const client = clientOf(address);
    const armed = vi.fn();
    const pass = client.read(request('a'), { onArmed: armed });
    await vi.waitFor(() => expect(armed).toHaveBeenCalled());
    client.cancel('a');
    expect(await pass).toMatchObject({ ok: false, reason: 'cancelled' });
    const next = client.read(request('b'), { onArmed: armed });
    await vi.waitFor(() => expect(armed).toHaveBeenCalledTimes(2));
    hand.draw();
    expect((await next).ok).toBe(true);
  });

  it('hear of instruments that come and go', async () => {
    const bridge = await serve([]);
    const client = clientOf(bridge.address);
    await vi.waitFor(() => expect(client.view.phase).toBe('connected'));
    expect((await client.calibrate('t', 'H-1', 5)).ok).toBe(false);
    bridge.setInstruments([handHeld().instrument]);
    await vi.waitFor(() => expect(client.view.instruments).toHaveLength(1));
    expect(await client.calibrate('t', 'H-1', 5)).toEqual({ ok: true });
  });

  it('say in words what an instrument threw', async () => {
    const broken: BridgeInstrument = {
      ...handHeld().instrument,
      read: () => Promise.reject(new Error('The lamp is out.')),
      calibrate: () => Promise.reject(new Error('The tile is missing.')),
    };
    const client = clientOf((await serve([broken])).address);
    expect(await client.read(request('a'))).toMatchObject({
      reason: 'instrument',
      words: 'The lamp is out.',
    });
    expect(await client.calibrate('t', 'H-1', 5)).toMatchObject({ words: 'The tile is missing.' });
  });

  it('is given up in words half a minute after the bridge left, and not before', async () => {
    vi.useFakeTimers({ shouldAdvanceTime: false });
    const client = new BridgeClient(() => {
      const socket: Socket = {
        ...{ onopen: null, onmessage: null, onclose: null, onerror: null },
        send: () => undefined,
        close: () => undefined,
      };
      setTimeout(() => (socket.onclose as (() => void) | null)?.(), 1);
      return socket;
    });
    clients.push(client);
    let answer: unknown;
    void client.read(request('a')).then((outcome) => (answer = outcome));
    await vi.advanceTimersByTimeAsync(29_900);
    expect(answer).toBeUndefined();
    await vi.advanceTimersByTimeAsync(200);
    expect(answer).toEqual({ ok: false, reason: 'bridge-gone' });
  });

  it('takes nothing that does not fit what was asked', async () => {
    const say = async (spectra: number[][]): Promise<unknown> => {
      const hand = handHeld();
      const client = clientOf((await serve([hand.instrument])).address);
      const armed = vi.fn();
      const pass = client.read(request('a', { patches: 2 }), { onArmed: armed });
      await vi.waitFor(() => expect(armed).toHaveBeenCalled());
      hand.draw({ ...GREY, spectra });
      return pass;
    };
    const row = GREY.spectra[0];
    expect(await say([row, row])).toMatchObject({ ok: true });
    expect(await say([row])).toEqual({ ok: false, reason: 'patch-count', found: 1 });
    expect(await say([row, row.slice(1)])).toEqual({ ok: false, reason: 'not-understood' });
    expect(await say([row, row.map(() => Number.NaN)])).toEqual({ ok: false, reason: 'not-understood' });
    expect(await say([row, row.map(() => 4.1)])).toEqual({ ok: false, reason: 'not-understood' });
  });
});

describe('what waits for a desk', () => {
  const pass = (id: string): Measured => ({ type: 'measured', id, instrument: 'H-1', mode: 'M1', ...GREY });
  const folder = mkdtempSync(join(tmpdir(), 'melto-journal-'));
  const file = join(folder, 'passes.jsonl');
  afterEach(() => rmSync(file, { force: true }));

  it('outlives the bridge, without what was kept and what was cut short', () => {
    const first = new PassJournal(file);
    for (const id of ['a', 'b', 'c']) first.add(pass(id));
    first.kept('b');
    appendFileSync(file, JSON.stringify(pass('torn')).slice(0, 80));
    const second = new PassJournal(file);
    expect(second.waiting).toEqual(['a', 'c']);
    expect(second.find('c')).toEqual(pass('c'));
    expect(readFileSync(file, 'utf8').trim().split('\n')).toHaveLength(2);
    second.kept('a');
    expect(new PassJournal(file).waiting).toEqual(['c']);
  });

  it('is a thousand at most, the oldest gone first', () => {
    writeFileSync(
      file,
      Array.from({ length: 1001 }, (_, i) => `${JSON.stringify(pass(`p${i}`))}\n`).join(''),
    );
    const { waiting } = new PassJournal(file);
    expect(waiting).toHaveLength(1000);
    expect(waiting[0]).toBe('p1');
  });
});

it('publishes its messages as they are checked', () => {
  const published = readFileSync(
    join(import.meta.dirname, '../../docs/instrument-bridge.schema.json'),
    'utf8',
  );
  expect(JSON.parse(published)).toEqual(JSON.parse(protocolSchema()));
  // Another reader of JSON Schema takes and refuses the same.
  const valid = new Ajv({ strict: false }).compile(JSON.parse(published) as object);
  const read = { type: 'read', id: 'a', instrument: 'H-1', mode: 'M1', patches: 1, at: 5 };
  expect(valid(read)).toBe(true);
  for (const unfit of [
    { ...read, mode: 'M4' },
    { ...read, patches: 0 },
    { ...read, more: 1 },
    { type: 'dance' },
  ])
    expect(valid(unfit)).toBe(false);
});

it.each([
  [undefined, true],
  ['http://127.0.0.1:3400', true],
  ['http://localhost', true],
  ['http://[::1]:9', true],
  ['https://colour.house.example', true],
  ['https://colour.house.example:8443', false],
  ['http://localhost.example', false],
  ['http://127.0.0.2', false],
  ['null', false],
  ['', false],
])('a page of %s may use the instruments: %s', (origin, may) => {
  expect(allowedOrigin(origin, ['https://colour.house.example'])).toBe(may);
});

describe('a simulated instrument', () => {
  const read = async (change: Partial<ReadMessage>): Promise<unknown> => {
    const client = clientOf((await serve(simulatedBridgeInstruments())).address);
    const asked = { instrument: 'strip-reader-2', patches: 20, under: underForChecks(20, 5e11), at: 5e11 };
    return client.read(request('a', { ...asked, ...change }));
  };

  it('reads what lies under it, and says why where it does not', async () => {
    expect(await read({})).toMatchObject({ ok: true, measured: { startNm: 380, stepNm: 10 } });
    expect(await read({ movement: 'off-row' })).toMatchObject({ reason: 'off-row' });
    expect(await read({ patches: 19 })).toMatchObject({ reason: 'patch-count', found: 20 });
    expect(await read({ under: undefined })).toMatchObject({ reason: 'nothing-under' });
    expect(await read({ under: '{"version":1}' })).toMatchObject({ reason: 'instrument' });
    // The tile holds for two hours.
    expect(await read({ at: 5e11 + 7_200_000 })).toMatchObject({ ok: true });
    expect(await read({ at: 5e11 + 7_200_001 })).toMatchObject({ reason: 'tile-needed' });
  });

  it('tells of each patch where it is set on them one by one', async () => {
    const client = clientOf((await serve(simulatedBridgeInstruments())).address);
    const done: number[] = [];
    const asked = request('a', {
      instrument: 'spot-reader-1',
      patches: 3,
      under: underForChecks(3, 5e11),
      at: 5e11,
    });
    expect((await client.read(asked, { onProgress: (count) => done.push(count) })).ok).toBe(true);
    expect(done).toEqual([1, 2, 3]);
  });
});
