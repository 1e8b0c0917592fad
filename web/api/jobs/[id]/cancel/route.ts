import { cancelJob } from '@melto/services/kernel/jobs';
import { CANCEL_JOB } from '@/endpoints/house';
import { changing } from '@/server/route';

export const POST = changing(CANCEL_JOB, async ({ context, params }) => {
  await cancelJob(context, params.id);
  return {};
});
