import { requestRefinement } from '@melto/services/profile/chartJobs';
import { REFINEMENT } from '@/endpoints/charts';
import { changing } from '@/server/route';

export const POST = changing(REFINEMENT, ({ context, params, body }) =>
  requestRefinement(context, params.id, body),
);
