import { deleteCondition } from '@melto/services/house/conditionRecord';
import { DELETE_CONDITION } from '@/endpoints/conditions';
import { changing } from '@/server/route';

export const PUT = changing(DELETE_CONDITION, async ({ context, params, body }) => {
  await deleteCondition(context, params.id, body.deleted);
  return {};
});
