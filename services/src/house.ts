import { listInstruments } from '@melto/store/devices';
import type { Services } from './context.ts';
import { rack } from './printing.ts';
import type { RackState } from './printing.ts';
import { personName } from './person.ts';

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
