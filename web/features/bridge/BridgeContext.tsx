'use client';

import { useQueryClient } from '@tanstack/react-query';
import {
  createContext,
  useCallback,
  useContext,
  useEffect,
  useMemo,
  useRef,
  useState,
  useSyncExternalStore,
} from 'react';
import type { ReactNode } from 'react';
import { BridgeClient, NO_BRIDGE } from '@melto/bridge/bridgeClient';
import type { BridgeView, Socket } from '@melto/bridge/bridgeClient';
import type { InstrumentInfo } from '@melto/bridge/protocol';
import { KNOW_INSTRUMENT, TILE_READ } from '@/endpoints/instruments';
import { useHouse } from '@/features/frame/useHouse';
import { ApiProblem, newKey, send } from '@/ui/api';
import { passWords } from './passWords';

const ADDRESS_KEY = 'melto-bridge';
const CHOICE_KEY = 'melto-instrument';

/** An instrument that is connected, as the house knows it. */
export interface Connected {
  readonly info: InstrumentInfo;
  /** Undefined until the house has met it. */
  readonly id: number | undefined;
  readonly name: string;
  readonly tileMs: number | null;
}

export interface BridgeState {
  readonly client: BridgeClient | undefined;
  readonly view: BridgeView;
  /** Where a bridge is looked for; empty where none is. */
  readonly address: string;
  readonly connectTo: (address: string) => void;
  readonly instruments: readonly Connected[];
  /** Serial number of the instrument that was chosen last. */
  readonly chosen: string;
  readonly choose: (serial: string) => void;
  /** Reads the white tile of an instrument; rejects in words. */
  readonly calibrate: (instrument: Connected) => Promise<void>;
}

const Context = createContext<BridgeState>({
  client: undefined,
  view: NO_BRIDGE,
  address: '',
  connectTo: () => undefined,
  instruments: [],
  chosen: '',
  choose: () => undefined,
  calibrate: () => Promise.reject(new ApiProblem(0, 'No instrument is connected.', 'Connect one first.')),
});

/** The instruments at hand: one connection to their bridge for all pages. */
export const useBridge = (): BridgeState => useContext(Context);

/** The instrument that was chosen last, or the first that is connected. */
export function useInstrumentAtHand(): Connected | undefined {
  const { instruments, chosen } = useBridge();
  return instruments.find(({ info }) => info.serial === chosen) ?? instruments[0];
}

const openSocket = (address: string): Socket => new WebSocket(address) as unknown as Socket;

export function BridgeProvider({
  children,
  open = openSocket,
}: {
  children: ReactNode;
  open?: (address: string) => Socket;
}) {
  const { data: house } = useHouse();
  const queries = useQueryClient();
  const [own, setOwn] = useState('');
  const [chosen, setChosen] = useState('');
  useEffect(() => {
    setOwn(kept(ADDRESS_KEY));
    setChosen(kept(CHOICE_KEY));
  }, []);
  const address = own === '' ? (house?.bridge ?? '') : own;
  const [client, setClient] = useState<BridgeClient>();
  useEffect(() => {
    if (address === '') return;
    const opened = new BridgeClient(() => open(address));
    setClient(opened);
    return () => {
      opened.close();
      setClient(undefined);
    };
  }, [address, open]);
  const view = useSyncExternalStore(
    useCallback((listener: () => void) => client?.subscribe(listener) ?? (() => undefined), [client]),
    () => client?.view ?? NO_BRIDGE,
    () => NO_BRIDGE,
  );

  // The house is told of each instrument once in a connection, and again when it changes.
  const told = useRef(new Set<string>());
  useEffect(() => told.current.clear(), [client]);
  useEffect(() => {
    // Whoever only looks makes nothing known.
    if (house?.role === 'viewer') return;
    for (const info of view.instruments) {
      const said = JSON.stringify(info);
      if (told.current.has(said)) continue;
      told.current.add(said);
      const { begins, movements, ...traits } = info;
      void begins;
      void movements;
      send(KNOW_INSTRUMENT, { body: traits })
        // One that the house has is in what it told already.
        .then(({ id }) =>
          house?.instruments.some((own) => own.id === id)
            ? undefined
            : queries.invalidateQueries({ queryKey: ['house'] }),
        )
        // Told again when the house answers; until then it cannot read.
        .catch(() => told.current.delete(said));
    }
    // The house is looked at again and again: what it could not be told is told then.
  }, [view, house, queries]);

  const houseHas = house?.instruments;
  const instruments = useMemo(
    () =>
      view.instruments.map((info): Connected => {
        const known = houseHas?.find(({ serial }) => serial === info.serial);
        return { info, id: known?.id, name: known?.name ?? info.name, tileMs: known?.tileMs ?? null };
      }),
    [view.instruments, houseHas],
  );

  const offsetMs = house?.offsetMs ?? 0;
  const calibrate = useCallback(
    async ({ info, id, name }: Connected): Promise<void> => {
      if (client === undefined || id === undefined)
        throw new ApiProblem(0, `${name} is not connected.`, 'Connect it again.');
      const answer = await client.calibrate(newKey(), info.serial, Date.now() + offsetMs);
      if (!answer.ok) throw new ApiProblem(409, passWords(answer, name), '');
      await send(TILE_READ, { params: { id } });
      await queries.invalidateQueries({ queryKey: ['house'] });
    },
    [client, offsetMs, queries],
  );

  const state = useMemo(
    (): BridgeState => ({
      ...{ client, view, address, instruments, chosen, calibrate },
      connectTo: (next) => {
        keep(ADDRESS_KEY, next);
        setOwn(next);
      },
      choose: (serial) => {
        keep(CHOICE_KEY, serial);
        setChosen(serial);
      },
    }),
    [client, view, address, instruments, chosen, calibrate],
  );
  return <Context value={state}>{children}</Context>;
}

function kept(key: string): string {
  try {
    return localStorage.getItem(key) ?? '';
  } catch {
    return '';
  }
}

function keep(key: string, value: string): void {
  try {
    localStorage.setItem(key, value);
  } catch {
    // Without storage it holds for this page.
  }
}
