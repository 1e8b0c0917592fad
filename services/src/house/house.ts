import { listInstruments } from '@melto/store/devices';
import type { Services } from '../kernel/context.ts';
import { rack } from '../charts/printing.ts';
import type { RackState } from '../charts/printing.ts';
import { personName } from '../kernel/person.ts';

/** What header and rack show on every screen. */
export interface HouseState extends RackState {
  readonly instrument: {
    readonly name: string;
    readonly tileMs: number | null;
    readonly tileLifeMs: number;
  } | null;
  readonly person: string;
}

export async function house(services: Services): Promise<HouseState> {
  const [state, instruments, person] = await Promise.all([
    rack(services),
    listInstruments(services.database),
    personName(services),
  ]);
  const [instrument] = instruments;
  const driver = instrument === undefined ? undefined : services.instruments.get(instrument.driver);
  return {
    ...state,
    instrument:
      instrument === undefined || driver === undefined
        ? null
        : { name: instrument.name, tileMs: instrument.tileMs, tileLifeMs: driver.tileLifeMs },
    person,
  };
}
