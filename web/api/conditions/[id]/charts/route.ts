import { requestChart } from '@melto/services/profile/chartJobs';
import { NEW_CHART } from '@/endpoints/charts';
import { changing } from '@/server/route';

export const POST = changing(NEW_CHART, ({ context, params, body }) =>
  requestChart(context, params.id, body),
);
