import { changeStock } from '@melto/services/house/library';
import { CHANGE_STOCK } from '@/endpoints/conditions';
import { changing } from '@/server/route';

export const PUT = changing(CHANGE_STOCK, async ({ context, params, body }) => {
  await changeStock(context, params.id, body);
  return {};
});
