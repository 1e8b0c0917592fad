import { setLeft } from '@melto/services/people/people';
import { SET_LEFT } from '@/endpoints/people';
import { changing } from '@/server/route';

export const PUT = changing(SET_LEFT, async ({ context, params, body }) => {
  await setLeft(context, params.id, body.away);
  return {};
});
