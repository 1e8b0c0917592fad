import { Value } from '@sinclair/typebox/value';
import { WebSocketServer } from 'ws';
import type { WebSocket } from 'ws';
import { allowedOrigin } from './allowedOrigin.ts';
import { PassJournal } from './passJournal.ts';
import { FROM_DESK, MOST_BYTES, PROTOCOL } from './protocol.ts';
import type { FromBridge, FromDesk, InstrumentInfo, Measured, ReadMessage } from './protocol.ts';

export interface Failure {
  readonly reason: string;
  readonly words?: string;
  /** Patches that were found, where their count is wrong. */
  readonly found?: number;
}

export type Passed = Pick<Measured, 'startNm' | 'stepNm' | 'spectra'>;

/** What a pass may say while it lasts. */
export interface PassEars {
  readonly armed: () => void;
  readonly progress: (done: number) => void;
  /** Aborted where the pass is not wanted any more. */
  readonly signal: AbortSignal;
}

/** An instrument behind a bridge: a driver of a real one, or a simulated one. */
export interface BridgeInstrument {
  readonly info: InstrumentInfo;
  /** Reads the white tile; resolves to why it could not. */
  readonly calibrate: (at: number) => Promise<Failure | undefined>;
  readonly read: (request: ReadMessage, ears: PassEars) => Promise<Passed | Failure>;
}

export interface BridgeOptions {
  /** 0 takes a free one. */
  readonly port: number;
  readonly name: string;
  readonly instruments: readonly BridgeInstrument[];
  /** Origins of desks besides those of this machine. */
  readonly origins?: readonly string[];
  /** File that keeps passes until a desk has kept them. */
  readonly journal?: string;
  /** How long a pass goes on that no desk listens to. */
  readonly graceMs?: number;
}

export interface Bridge {
  readonly address: string;
  /** Tells all desks which instruments there are now. */
  readonly setInstruments: (instruments: readonly BridgeInstrument[]) => void;
  readonly close: () => Promise<void>;
}

interface RunningPass {
  readonly request: ReadMessage;
  readonly abort: AbortController;
  /** The desk that hears of it: the one that asked last. */
  desk: WebSocket | undefined;
  /** What was said of it so far: a desk that comes back hears it again. */
  readonly said: FromBridge[];
}

/** Serves instruments to reading desks on loopback. Rejects where the port is taken. */
export async function serveBridge(options: BridgeOptions): Promise<Bridge> {
  const { port, name, origins = [], graceMs = 30_000 } = options;
  const journal = new PassJournal(options.journal);
  const running = new Map<string, RunningPass>();
  let instruments = options.instruments;
  const server = new WebSocketServer({
    host: '127.0.0.1',
    port,
    maxPayload: MOST_BYTES,
    verifyClient: ({ origin }: { origin: string | undefined }) => allowedOrigin(origin, origins),
  });
  await new Promise<void>((resolve, reject) => {
    server.once('listening', resolve);
    server.once('error', reject);
  });
  const say = (desk: WebSocket | undefined, message: FromBridge): void => {
    if (desk?.readyState === 1) desk.send(JSON.stringify(message));
  };
  const infos = (): InstrumentInfo[] => instruments.map(({ info }) => info);

  const read = async (desk: WebSocket, request: ReadMessage): Promise<void> => {
    const fail = (failure: Failure): void => say(desk, { type: 'failed', id: request.id, ...failure });
    const measured = journal.find(request.id);
    if (measured !== undefined) return say(desk, measured);
    const same = running.get(request.id);
    if (same !== undefined) {
      same.desk = desk;
      for (const said of same.said) say(desk, said);
      return;
    }
    const instrument = instruments.find(({ info }) => info.serial === request.instrument);
    if (instrument === undefined) return fail({ reason: 'no-instrument' });
    if (!instrument.info.modes.includes(request.mode)) return fail({ reason: 'no-mode' });
    if ([...running.values()].some((pass) => pass.request.instrument === request.instrument))
      return fail({ reason: 'busy' });
    const pass: RunningPass = { request, desk, abort: new AbortController(), said: [] };
    running.set(request.id, pass);
    const tell = (message: FromBridge): void => {
      pass.said.push(message);
      say(pass.desk, message);
    };
    const { id, mode } = request;
    const outcome = await instrument
      .read(request, {
        armed: () => tell({ type: 'armed', id }),
        progress: (done) => tell({ type: 'progress', id, done }),
        signal: pass.abort.signal,
      })
      .catch((error: unknown): Failure => ({ reason: 'instrument', words: said(error) }));
    running.delete(id);
    if ('reason' in outcome) return say(pass.desk, { type: 'failed', id, ...outcome });
    if (pass.abort.signal.aborted) return say(pass.desk, { type: 'failed', id, reason: 'cancelled' });
    const whole: Measured = { type: 'measured', id, instrument: request.instrument, mode, ...outcome };
    // Kept before it is sent: whoever cuts the line in between asks for it again.
    journal.add(whole);
    say(pass.desk, whole);
  };

  const calibrate = async (desk: WebSocket, id: string, serial: string, at: number): Promise<void> => {
    const instrument = instruments.find(({ info }) => info.serial === serial);
    if (instrument === undefined) return say(desk, { type: 'failed', id, reason: 'no-instrument' });
    if ([...running.values()].some((pass) => pass.request.instrument === serial))
      return say(desk, { type: 'failed', id, reason: 'busy' });
    const failure = await instrument
      .calibrate(at)
      .catch((error: unknown): Failure => ({ reason: 'instrument', words: said(error) }));
    say(desk, failure === undefined ? { type: 'calibrated', id } : { type: 'failed', id, ...failure });
  };

  const hear = async (desk: WebSocket, message: FromDesk): Promise<void> => {
    if (message.type === 'read') await read(desk, message);
    else if (message.type === 'calibrate') await calibrate(desk, message.id, message.instrument, message.at);
    else if (message.type === 'cancel') running.get(message.id)?.abort.abort();
    else if (message.type === 'kept') journal.kept(message.id);
  };

  server.on('connection', (desk) => {
    let greeted = false;
    desk.on('message', (data, binary) => {
      const message = binary ? undefined : parsed(String(data));
      if (message === undefined)
        return say(desk, { type: 'error', words: 'This is no message of the instrument protocol.' });
      if (message.type === 'hello') {
        if (message.protocol !== PROTOCOL) {
          say(desk, {
            type: 'error',
            words: `This bridge speaks protocol ${PROTOCOL}, not ${message.protocol}.`,
          });
          return desk.close(4000, 'protocol');
        }
        greeted = true;
        return say(desk, {
          ...{ type: 'hello', protocol: PROTOCOL, bridge: name },
          ...{ instruments: infos(), waiting: journal.waiting },
        });
      }
      if (!greeted) return say(desk, { type: 'error', words: 'Say hello first.' });
      void hear(desk, message);
    });
    // A line that breaks loses nothing: whoever comes back within the grace asks for the pass again.
    desk.on('close', () => {
      for (const pass of running.values()) {
        if (pass.desk !== desk) continue;
        pass.desk = undefined;
        setTimeout(() => pass.desk === undefined && pass.abort.abort(), graceMs).unref();
      }
    });
    desk.on('error', () => desk.terminate());
  });

  const bound = server.address();
  if (bound === null || typeof bound === 'string') throw new Error('the bridge has no port');
  return {
    address: `ws://127.0.0.1:${bound.port}`,
    setInstruments: (next) => {
      instruments = next;
      for (const desk of server.clients) say(desk, { type: 'instruments', instruments: infos() });
    },
    close: () =>
      new Promise((resolve) => {
        for (const desk of server.clients) desk.terminate();
        server.close(() => resolve());
      }),
  };
}

function parsed(text: string): FromDesk | undefined {
  try {
    const value: unknown = JSON.parse(text);
    return Value.Check(FROM_DESK, value) ? value : undefined;
  } catch {
    return undefined;
  }
}

const said = (error: unknown): string =>
  (error instanceof Error ? error.message : String(error)).slice(0, 300);
