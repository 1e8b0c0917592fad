import { createPressChart } from '@melto/services/calibration/pressCharts';
import { NEW_PRESS_CHART } from '@/endpoints/charts';
import { changing } from '@/server/route';

export const POST = changing(NEW_PRESS_CHART, ({ context, params, body }) =>
  createPressChart(context, params.id, body),
);
