import { sourceReadingOf } from '@melto/store/results';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';

/** The reading that a result was made from. */
export async function sourceReading({ database }: Context, resultId: number): Promise<number> {
  const reading = await sourceReadingOf(database, resultId);
  if (reading === undefined) throw new Problem('not-found', 'its reading is not known', '');
  return reading;
}
