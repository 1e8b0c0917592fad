import { LOCAL_PERSON } from './context.ts';
import type { Services } from './context.ts';

/** The name of whoever works here now. */
export async function personName({ database }: Pick<Services, 'database'>): Promise<string> {
  const [row] = await database.rows<{ name: string }>('SELECT name FROM person WHERE id = ?', [LOCAL_PERSON]);
  return row?.name ?? '';
}
