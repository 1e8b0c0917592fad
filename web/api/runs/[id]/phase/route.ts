import { setPhase } from '@melto/services/press/atThePress';
import { SET_PHASE } from '@/endpoints/runs';
import { changing } from '@/server/route';

export const PUT = changing(SET_PHASE, async ({ context, params, body }) => {
  await setPhase(context, params.id, body);
  return {};
});
