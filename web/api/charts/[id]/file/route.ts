import { chartReference } from '@melto/services/charts/chart';
import { chartFile } from '@melto/services/charts/chartPages';
import { CHART_FILE } from '@/endpoints/charts';
import { handingOut } from '@/server/route';

export const GET = handingOut(
  CHART_FILE,
  ({ context, params: { id }, query: { format = 'txt', page = 1 } }) =>
    format === 'txt' ? chartReference(context, id) : chartFile(context, id, format, page),
);
