import { changeLight } from '@melto/services/light/viewingLights';
import { CHANGE_LIGHT } from '@/endpoints/light';
import { changing } from '@/server/route';

export const PUT = changing(CHANGE_LIGHT, async ({ context, params, body }) => {
  await changeLight(context, params.id, body);
  return {};
});
