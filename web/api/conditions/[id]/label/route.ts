import { renameCondition } from '@melto/services/house/conditionRecord';
import { RENAME_CONDITION } from '@/endpoints/conditions';
import { changing } from '@/server/route';

export const PUT = changing(RENAME_CONDITION, async ({ context, params, body }) => {
  await renameCondition(context, params.id, body.label);
  return {};
});
