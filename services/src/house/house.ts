import { findHouse } from '@melto/store/houses';
import { rack } from '../charts/rack.ts';
import type { RackState } from '../charts/rack.ts';
import type { Context } from '../kernel/context.ts';
import { personName } from '../kernel/person.ts';
import { instruments } from '../reading/instruments.ts';
import type { InstrumentRow } from '../reading/instruments.ts';

export type HouseInstrument = Pick<InstrumentRow, 'id' | 'serial' | 'name' | 'tileMs' | 'tileLifeMs'>;

/** What header and rack show on every screen. */
export interface HouseState extends RackState {
  /** Instruments that the house has met. */
  readonly instruments: readonly HouseInstrument[];
  readonly person: string;
  readonly name: string;
  /** Its clock can be moved. */
  readonly sample: boolean;
}

export async function house(context: Context): Promise<HouseState> {
  const [state, known, person, own] = await Promise.all([
    rack(context),
    instruments(context),
    personName(context),
    findHouse(context.database),
  ]);
  return {
    ...state,
    instruments: known.map(({ id, serial, name, tileMs, tileLifeMs }) => ({
      ...{ id, serial, name, tileMs, tileLifeMs },
    })),
    person,
    name: own?.name ?? '',
    sample: own?.sample === true,
  };
}
