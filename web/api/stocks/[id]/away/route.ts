import { putAway } from '@melto/services/house/library';
import { PUT_STOCK_AWAY } from '@/endpoints/conditions';
import { changing } from '@/server/route';

export const PUT = changing(PUT_STOCK_AWAY, async ({ context, params, body }) => {
  await putAway(context, 'stock', params.id, body.away);
  return {};
});
