import { setRest } from '@melto/services/house/conditionRecord';
import { SET_REST } from '@/endpoints/conditions';
import { changing } from '@/server/route';

export const PUT = changing(SET_REST, async ({ context, params, body }) => {
  await setRest(context, params.id, body.restMinutes);
  return {};
});
