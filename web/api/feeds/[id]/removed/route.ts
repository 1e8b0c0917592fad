import { removeFeed } from '@melto/services/press/feeds';
import { REMOVE_FEED } from '@/endpoints/runs';
import { changing } from '@/server/route';

export const PUT = changing(REMOVE_FEED, async ({ context, params, body }) => {
  await removeFeed(context, params.id, body.removed);
  return {};
});
