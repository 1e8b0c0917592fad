import { discardSheet } from '@melto/services/charts/rack';
import { SET_ON_RACK } from '@/endpoints/charts';
import { changing } from '@/server/route';

export const PUT = changing(SET_ON_RACK, async ({ context, params, body }) => {
  await discardSheet(context, params.code, body.onRack);
  return {};
});
