import { Value } from '@sinclair/typebox/value';
import WebSocket from 'ws';
import { FROM_BRIDGE, PROTOCOL } from '../protocol.ts';
import type { FromBridge, FromDesk } from '../protocol.ts';

type Kind = FromBridge['type'];
export type Said<K extends Kind> = Extract<FromBridge, { readonly type: K }>;

/** A desk's end of a line to a bridge that hides nothing: what it hears it gives as it came. */
export class RawDesk {
  readonly #socket: WebSocket;
  readonly #heard: FromBridge[] = [];
  #wake: () => void = () => undefined;
  /** What was no message of the protocol. */
  readonly unfit: string[] = [];
  closed = false;

  private constructor(socket: WebSocket) {
    this.#socket = socket;
    socket.on('message', (data, binary) => {
      const text = String(data);
      const message = binary ? undefined : parsed(text);
      if (message === undefined) this.unfit.push(text.slice(0, 200));
      else this.#heard.push(message);
      this.#wake();
    });
    socket.on('close', () => {
      this.closed = true;
      this.#wake();
    });
    socket.on('error', () => undefined);
  }

  /** Rejects where the bridge refuses the line. */
  static open(address: string, origin?: string): Promise<RawDesk> {
    return new Promise((resolve, reject) => {
      const socket = new WebSocket(address, origin === undefined ? {} : { origin });
      socket.once('error', reject);
      socket.once('open', () => resolve(new RawDesk(socket)));
    });
  }

  /** A line on which hello was said. */
  static async greeted(address: string): Promise<{ readonly desk: RawDesk; readonly hello: Said<'hello'> }> {
    const desk = await RawDesk.open(address);
    desk.say({ type: 'hello', protocol: PROTOCOL, desk: 'conformance' });
    return { desk, hello: await desk.hears(['hello']) };
  }

  say(message: FromDesk): void {
    this.#socket.send(JSON.stringify(message));
  }

  sayRaw(data: string | Buffer): void {
    this.#socket.send(data);
  }

  close(): void {
    this.#socket.close();
  }

  /** The next message of one of these kinds (and of `id`); others in between are dropped. Rejects after `patienceMs`. */
  async hears<K extends Kind>(kinds: readonly K[], id?: string, patienceMs = 10_000): Promise<Said<K>> {
    const until = Date.now() + patienceMs;
    for (;;) {
      const next = this.#heard.shift();
      if (next !== undefined) {
        const wanted = (kinds as readonly string[]).includes(next.type);
        if (wanted && (id === undefined || ('id' in next && next.id === id))) return next as Said<K>;
        continue;
      }
      const left = until - Date.now();
      const unfit = this.unfit.length === 0 ? '' : `; it said ${this.unfit.join(' ')}`;
      if (this.closed) throw new Error(`the line was closed before ${kinds.join(' or ')} came${unfit}`);
      if (left <= 0) throw new Error(`no ${kinds.join(' or ')} within ${patienceMs / 1000} s${unfit}`);
      await new Promise<void>((resolve) => {
        this.#wake = resolve;
        setTimeout(resolve, left);
      });
    }
  }

  /** Resolves once the line is closed; rejects where it is not within `patienceMs`. */
  async ends(patienceMs = 5000): Promise<void> {
    const until = Date.now() + patienceMs;
    while (!this.closed) {
      if (Date.now() > until) throw new Error('the line was not closed');
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
  }
}

function parsed(text: string): FromBridge | undefined {
  try {
    const value: unknown = JSON.parse(text);
    return Value.Check(FROM_BRIDGE, value) ? value : undefined;
  } catch {
    return undefined;
  }
}
