import { actingName } from '@melto/store/houses';
import type { Context } from './context.ts';

/** The name of whoever acts. */
export async function personName({ database }: Pick<Context, 'database'>): Promise<string> {
  return (await actingName(database)) ?? '';
}
