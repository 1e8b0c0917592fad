import { fillPoint } from '@melto/services/house/conditionRecord';
import { FILL_POINT } from '@/endpoints/conditions';
import { changing } from '@/server/route';

export const PUT = changing(FILL_POINT, async ({ context, params, body }) => {
  await fillPoint(context, params.id, body.label, body.value);
  return {};
});
