import { printChart } from '@melto/services/charts/printChart';
import { PRINT_CHART } from '@/endpoints/charts';
import { changing } from '@/server/route';

export const POST = changing(PRINT_CHART, ({ context, params, body }) =>
  printChart(context, params.id, body),
);
