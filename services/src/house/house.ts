import { listInstruments } from '@melto/store/devices';
import { findHouse } from '@melto/store/houses';
import { rack } from '../charts/rack.ts';
import type { RackState } from '../charts/rack.ts';
import type { Context } from '../kernel/context.ts';
import { personName } from '../kernel/person.ts';

/** What header and rack show on every screen. */
export interface HouseState extends RackState {
  readonly instrument: {
    readonly name: string;
    readonly tileMs: number | null;
    readonly tileLifeMs: number;
  } | null;
  readonly person: string;
  readonly name: string;
  /** Its clock can be moved. */
  readonly sample: boolean;
}

export async function house(context: Context): Promise<HouseState> {
  const [state, instruments, person, own] = await Promise.all([
    rack(context),
    listInstruments(context.database),
    personName(context),
    findHouse(context.database),
  ]);
  const [instrument] = instruments;
  const driver = instrument === undefined ? undefined : context.instruments.get(instrument.driver);
  return {
    ...state,
    instrument:
      instrument === undefined || driver === undefined
        ? null
        : { name: instrument.name, tileMs: instrument.tileMs, tileLifeMs: driver.tileLifeMs },
    person,
    name: own?.name ?? '',
    sample: own?.sample === true,
  };
}
