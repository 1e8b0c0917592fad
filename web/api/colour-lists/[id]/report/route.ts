import { colourListReport } from '@melto/services/lists/colourListReport';
import { COLOUR_LIST_REPORT } from '@/endpoints/lists';
import { handingOut } from '@/server/route';

export const GET = handingOut(
  COLOUR_LIST_REPORT,
  ({ context, params, query }) => colourListReport(context, params.id, query.conditionId, query.format),
  true,
);
