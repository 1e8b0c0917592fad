import { removePaperTrial } from '@melto/services/house/paperTrials';
import { REMOVE_TRIAL } from '@/endpoints/trials';
import { changing } from '@/server/route';

export const PUT = changing(REMOVE_TRIAL, async ({ context, params, body }) => {
  await removePaperTrial(context, params.id, body.removed);
  return {};
});
