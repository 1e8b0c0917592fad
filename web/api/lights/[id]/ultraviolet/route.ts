import { tellUltraviolet } from '@melto/services/light/viewingLights';
import { TELL_ULTRAVIOLET } from '@/endpoints/light';
import { changing } from '@/server/route';

export const PUT = changing(TELL_ULTRAVIOLET, async ({ context, params, body }) => {
  await tellUltraviolet(context, params.id, body);
  return {};
});
