import { archiveCondition } from '@melto/services/house/conditionRecord';
import { ARCHIVE_CONDITION } from '@/endpoints/conditions';
import { changing } from '@/server/route';

export const PUT = changing(ARCHIVE_CONDITION, async ({ context, params, body }) => {
  await archiveCondition(context, params.id, body.archived);
  return {};
});
