import { putVersionInForce } from '@melto/services/watch/putWatchInForce';
import { PUT_IN_FORCE } from '@/endpoints/calibration';
import { changing } from '@/server/route';

export const PUT = changing(PUT_IN_FORCE, async ({ context, params }) => {
  await putVersionInForce(context, params.id);
  return { id: params.id };
});
