import { setFeedRun } from '@melto/services/press/feeds';
import { FEED_RUN } from '@/endpoints/runs';
import { changing } from '@/server/route';

export const PUT = changing(FEED_RUN, async ({ context, params, body }) => {
  await setFeedRun(context, params.id, body);
  return {};
});
