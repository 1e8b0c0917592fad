import { changeDevice } from '@melto/services/house/library';
import { CHANGE_DEVICE } from '@/endpoints/conditions';
import { changing } from '@/server/route';

export const PUT = changing(CHANGE_DEVICE, async ({ context, params, body }) => {
  await changeDevice(context, params.id, body);
  return {};
});
