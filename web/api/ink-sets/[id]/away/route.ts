import { putAway } from '@melto/services/house/library';
import { PUT_INK_SET_AWAY } from '@/endpoints/conditions';
import { changing } from '@/server/route';

export const PUT = changing(PUT_INK_SET_AWAY, async ({ context, params, body }) => {
  await putAway(context, 'ink set', params.id, body.away);
  return {};
});
