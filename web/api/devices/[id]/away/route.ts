import { putAway } from '@melto/services/house/library';
import { PUT_DEVICE_AWAY } from '@/endpoints/conditions';
import { changing } from '@/server/route';

export const PUT = changing(PUT_DEVICE_AWAY, async ({ context, params, body }) => {
  await putAway(context, 'device', params.id, body.away);
  return {};
});
