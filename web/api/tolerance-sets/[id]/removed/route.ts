import { removeToleranceSet } from '@melto/services/conformity/toleranceSets';
import { REMOVE_TOLERANCE_SET } from '@/endpoints/conformity';
import { changing } from '@/server/route';

export const PUT = changing(REMOVE_TOLERANCE_SET, async ({ context, params, body }) => {
  await removeToleranceSet(context, params.id, body.removed);
  return {};
});
