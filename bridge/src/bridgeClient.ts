import { Value } from '@sinclair/typebox/value';
import { FROM_BRIDGE, PROTOCOL } from './protocol.ts';
import type { FromBridge, FromDesk, InstrumentInfo, Measured, ReadMessage } from './protocol.ts';

/** What a bridge is seen as; the same object until something changes. */
export interface BridgeView {
  readonly phase: 'looking' | 'connected';
  readonly bridge: string;
  readonly instruments: readonly InstrumentInfo[];
  /** Passes that were measured and that no desk has kept yet. */
  readonly waiting: readonly string[];
  /** Why there is no connection, where more is known than that nobody answers. */
  readonly problem: string | undefined;
}

export interface NoPass {
  readonly ok: false;
  readonly reason: string;
  readonly words?: string;
  readonly found?: number;
}
export type PassOutcome = { readonly ok: true; readonly measured: Measured } | NoPass;

export interface PassEvents {
  /** The instrument waits for the person's movement. */
  readonly onArmed?: () => void;
  /** So many patches are read. */
  readonly onProgress?: (done: number) => void;
}

/** The part of a WebSocket that is used: a browser's, or that of `ws`. */
export interface Socket {
  onopen: ((event: never) => void) | null;
  onmessage: ((event: { readonly data: unknown }) => void) | null;
  onclose: ((event: never) => void) | null;
  onerror: ((event: never) => void) | null;
  send(text: string): void;
  close(): void;
}

interface Pending {
  readonly message: FromDesk;
  readonly answered: (answer: FromBridge | NoPass) => void;
  readonly events: PassEvents;
}

const FIRST_PAUSE_MS = 200;
const LONGEST_PAUSE_MS = 5000;
/** A bridge that has not come back after so long is given up for this pass. */
const PATIENCE_MS = 30_000;

/** A bridge that does not answer to a cancelled pass in this time is not waited for. */
const LONGEST_CANCEL_MS = 3000;

/** No bridge has answered yet. */
export const NO_BRIDGE: BridgeView = {
  phase: 'looking',
  bridge: '',
  instruments: [],
  waiting: [],
  problem: undefined,
};

/**
 * A desk's end of the instrument protocol. It connects, and connects again; what was asked and not answered is asked
 * again under the same id, so that a bridge that dies and returns loses no pass and makes none twice.
 */
export class BridgeClient {
  readonly #open: () => Socket;
  readonly #desk: string;
  readonly #pending = new Map<string, Pending>();
  readonly #listeners = new Set<() => void>();
  #view: BridgeView = NO_BRIDGE;
  #socket: Socket | undefined;
  #pause = FIRST_PAUSE_MS;
  #again: ReturnType<typeof setTimeout> | undefined;
  #giveUp: ReturnType<typeof setTimeout> | undefined;
  #closed = false;

  constructor(open: () => Socket, desk = 'Melto') {
    this.#open = open;
    this.#desk = desk;
    this.#connect();
  }

  get view(): BridgeView {
    return this.#view;
  }

  /** @returns what ends the subscription. */
  subscribe(listener: () => void): () => void {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  }

  /** Reads the white tile of an instrument. @param at the house's time. */
  async calibrate(id: string, instrument: string, at: number): Promise<{ readonly ok: true } | NoPass> {
    const answer = await this.#ask(id, { type: 'calibrate', id, instrument, at });
    return 'type' in answer ? (answer.type === 'calibrated' ? { ok: true } : failure(answer)) : answer;
  }

  /** Has a strip read. Resolves when it is measured or has failed; the pass is kept by the bridge until `kept`. */
  async read(request: Omit<ReadMessage, 'type'>, events: PassEvents = {}): Promise<PassOutcome> {
    const answer = await this.#ask(request.id, { type: 'read', ...request }, events);
    if (!('type' in answer)) return answer;
    if (answer.type !== 'measured') return failure(answer);
    const { spectra } = answer;
    if (spectra.length !== request.patches)
      return { ok: false, reason: 'patch-count', found: spectra.length };
    const unfit =
      answer.instrument !== request.instrument ||
      answer.mode !== request.mode ||
      spectra.some((row) => row.length !== spectra[0].length);
    return unfit ? NOT_UNDERSTOOD : { ok: true, measured: answer };
  }

  /** The pass is not wanted any more. It ends when the bridge says so, or as what it came to in the meantime. */
  cancel(id: string): void {
    const cancelled: NoPass = { ok: false, reason: 'cancelled' };
    if (this.#view.phase !== 'connected') return this.#settle(id, cancelled);
    this.#send({ type: 'cancel', id });
    setTimeout(() => this.#settle(id, cancelled), LONGEST_CANCEL_MS);
  }

  /** The pass is stored: the bridge may forget it. */
  kept(id: string): void {
    this.#change({ waiting: this.#view.waiting.filter((other) => other !== id) });
    this.#send({ type: 'kept', id });
  }

  close(): void {
    this.#closed = true;
    clearTimeout(this.#again);
    clearTimeout(this.#giveUp);
    for (const id of [...this.#pending.keys()]) this.#settle(id, { ok: false, reason: 'cancelled' });
    this.#socket?.close();
  }

  #ask(id: string, message: FromDesk, events: PassEvents = {}): Promise<FromBridge | NoPass> {
    return new Promise((resolve) => {
      this.#pending.set(id, { message, answered: resolve, events });
      if (this.#view.phase === 'connected') this.#send(message);
      else this.#waitForReturn();
    });
  }

  #settle(id: string, answer: FromBridge | NoPass): void {
    const pending = this.#pending.get(id);
    this.#pending.delete(id);
    pending?.answered(answer);
  }

  #send(message: FromDesk): void {
    if (this.#view.phase === 'connected') this.#socket?.send(JSON.stringify(message));
  }

  #connect(): void {
    let socket: Socket;
    try {
      socket = this.#open();
    } catch (error) {
      // An address that is none.
      this.#change({ problem: error instanceof Error ? error.message : String(error) });
      return;
    }
    this.#socket = socket;
    socket.onopen = () =>
      socket.send(JSON.stringify({ type: 'hello', protocol: PROTOCOL, desk: this.#desk } satisfies FromDesk));
    socket.onmessage = ({ data }) => this.#hear(String(data));
    socket.onerror = () => undefined;
    socket.onclose = () => {
      this.#socket = undefined;
      this.#change({ phase: 'looking', instruments: [], waiting: [] });
      if (this.#closed) return;
      this.#waitForReturn();
      this.#again = setTimeout(() => this.#connect(), this.#pause);
      this.#pause = Math.min(LONGEST_PAUSE_MS, 2 * this.#pause);
    };
  }

  #waitForReturn(): void {
    if (this.#pending.size === 0) return;
    this.#giveUp ??= setTimeout(() => {
      this.#giveUp = undefined;
      for (const id of [...this.#pending.keys()]) this.#settle(id, { ok: false, reason: 'bridge-gone' });
    }, PATIENCE_MS);
  }

  #hear(text: string): void {
    const value = parsed(text);
    if (!Value.Check(FROM_BRIDGE, value)) {
      const id = (value as { readonly id?: unknown } | undefined)?.id;
      if (typeof id === 'string') this.#settle(id, NOT_UNDERSTOOD);
      return;
    }
    if (value.type === 'hello') this.#greeted(value);
    else if (value.type === 'instruments') this.#change({ instruments: value.instruments });
    else if (value.type === 'error') this.#change({ problem: value.words });
    else if (value.type === 'armed') this.#pending.get(value.id)?.events.onArmed?.();
    else if (value.type === 'progress') this.#pending.get(value.id)?.events.onProgress?.(value.done);
    else this.#settle(value.id, value);
  }

  #greeted({ protocol, bridge, instruments, waiting }: Extract<FromBridge, { type: 'hello' }>): void {
    if (protocol !== PROTOCOL) {
      this.#change({ problem: `${bridge} speaks protocol ${protocol}, not ${PROTOCOL}.` });
      return;
    }
    clearTimeout(this.#giveUp);
    this.#giveUp = undefined;
    this.#pause = FIRST_PAUSE_MS;
    this.#change({ phase: 'connected', bridge, instruments, waiting, problem: undefined });
    for (const { message } of this.#pending.values()) this.#send(message);
  }

  #change(change: Partial<BridgeView>): void {
    this.#view = { ...this.#view, ...change };
    for (const listener of this.#listeners) listener();
  }
}

const NOT_UNDERSTOOD: NoPass = { ok: false, reason: 'not-understood' };

function failure(answer: FromBridge): NoPass {
  if (answer.type !== 'failed') return NOT_UNDERSTOOD;
  const { reason, words, found } = answer;
  return { ok: false, reason, words, found };
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return undefined;
  }
}
