import { changeInkSet } from '@melto/services/house/inkSets';
import { CHANGE_INK_SET } from '@/endpoints/conditions';
import { changing } from '@/server/route';

export const PUT = changing(CHANGE_INK_SET, async ({ context, params, body }) => {
  await changeInkSet(context, params.id, body);
  return {};
});
