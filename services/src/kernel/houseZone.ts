import { findHouse } from '@melto/store/houses';
import type { Context } from './context.ts';

/** The time zone in which the house's times are told: on screens, reports, charts and in names. */
export async function houseZone({ database }: Pick<Context, 'database'>): Promise<string> {
  const house = await findHouse(database);
  if (house === undefined) throw new Error(`no house ${database.house}`);
  return house.timeZone;
}
