import { OutcomeUnknown } from '@melto/store/database';
import { isLost } from '@melto/store/databaseNodes';

/**
 * What is the matter where a change or a question failed by its database: it did not answer, so that nothing was
 * changed, or it was lost while it ended a change, so that nobody knows; nothing of that for other errors.
 */
export function databaseTrouble(error: unknown): 'lost' | 'unknown' | undefined {
  if (error instanceof OutcomeUnknown) return 'unknown';
  return isLost(error) ? 'lost' : undefined;
}
