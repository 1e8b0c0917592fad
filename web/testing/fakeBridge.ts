import type { Socket } from '@melto/bridge/bridgeClient';
import type { FromBridge, FromDesk, InstrumentInfo, ReadMessage } from '@melto/bridge/protocol';
import type { HouseOnPages } from '@/endpoints/house';

export const STRIP_READER: InstrumentInfo = {
  ...{ serial: 'S-1', name: 'Strip reader 2', kind: 'strip', modes: ['M0', 'M1', 'M2'] },
  ...{ begins: 'when-asked', tileLifeMs: 3_600_000, simulated: true },
  movements: ['steady', 'too-fast'],
};

/** What a house tells of its instruments where `STRIP_READER` has been met. */
export const WITH_READER: Pick<HouseOnPages, 'instruments' | 'bridge'> = {
  instruments: [{ id: 3, serial: 'S-1', name: 'Strip reader 2', tileMs: Date.now(), tileLifeMs: 3_600_000 }],
  bridge: 'ws://127.0.0.1:3471',
};

/** A pass of grey patches. */
export const greyPass = ({ id, instrument, mode, patches }: ReadMessage): FromBridge => ({
  ...{ type: 'measured', id, instrument, mode, startNm: 380, stepNm: 10 },
  spectra: Array.from({ length: patches }, () => Array.from({ length: 36 }, () => 0.5)),
});

export interface FakeBridge {
  readonly open: () => Socket;
  /** What desks said. */
  readonly said: FromDesk[];
  /** The bridge says something by itself. */
  readonly say: (message: FromBridge) => void;
  /** The line breaks; a desk connects again by itself. */
  readonly drop: () => void;
}

/** An instrument bridge in the page itself. `read` gives no answer where the pass waits. */
export function fakeBridge({
  instruments = [STRIP_READER],
  read = greyPass,
  calibrate = ({ id }) => ({ type: 'calibrated', id }),
}: {
  instruments?: InstrumentInfo[];
  read?: (request: ReadMessage) => FromBridge | undefined;
  calibrate?: (request: { readonly id: string }) => FromBridge;
} = {}): FakeBridge {
  const said: FromDesk[] = [];
  let line: Socket | undefined;
  const say = (message: FromBridge | undefined): void => {
    if (message !== undefined) line?.onmessage?.({ data: JSON.stringify(message) });
  };
  const answer = (message: FromDesk): void => {
    if (message.type === 'hello')
      say({ type: 'hello', protocol: 1, bridge: 'Test bridge', instruments, waiting: [] });
    else if (message.type === 'read') say(read(message));
    else if (message.type === 'calibrate') say(calibrate(message));
    else if (message.type === 'cancel') say({ type: 'failed', id: message.id, reason: 'cancelled' });
  };
  return {
    said,
    say,
    open: () => {
      const socket: Socket = {
        ...{ onopen: null, onmessage: null, onclose: null, onerror: null },
        send: (text) => {
          const message = JSON.parse(text) as FromDesk;
          said.push(message);
          queueMicrotask(() => answer(message));
        },
        close: () => undefined,
      };
      line = socket;
      queueMicrotask(() => (socket.onopen as (() => void) | null)?.());
      return socket;
    },
    drop: () => (line?.onclose as (() => void) | null)?.(),
  };
}
