import { findAnswer, storeAnswer } from '@melto/store/idempotency';
import type { StoredAnswer } from '@melto/store/idempotency';
import type { Services } from './context.ts';

export function findStoredAnswer(services: Services, key: string): Promise<StoredAnswer | undefined> {
  return findAnswer(services.database, key);
}

export function storeGivenAnswer(services: Services, key: string, answer: StoredAnswer): Promise<void> {
  return storeAnswer(services.database, key, answer, services.now());
}
