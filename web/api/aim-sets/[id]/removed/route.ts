import { removeAimSet } from '@melto/services/conformity/aimSets';
import { REMOVE_AIM_SET } from '@/endpoints/conformity';
import { changing } from '@/server/route';

export const PUT = changing(REMOVE_AIM_SET, async ({ context, params, body }) => {
  await removeAimSet(context, params.id, body.removed);
  return {};
});
