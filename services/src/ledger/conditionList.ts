import { listConditions } from '@melto/store/conditions';
import type { ConditionRow } from '@melto/store/conditions';
import type { Services } from '../kernel/context.ts';

export type { ConditionRow };

export function conditionsOf(services: Services): Promise<ConditionRow[]> {
  return listConditions(services.database);
}
