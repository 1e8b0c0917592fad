import { putLightAway } from '@melto/services/light/viewingLights';
import { PUT_LIGHT_AWAY } from '@/endpoints/light';
import { changing } from '@/server/route';

export const PUT = changing(PUT_LIGHT_AWAY, async ({ context, params, body }) => {
  await putLightAway(context, params.id, body.away);
  return {};
});
