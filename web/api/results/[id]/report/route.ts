import { checkReport } from '@melto/services/conformity/checkReports';
import { REPORT } from '@/endpoints/conformity';
import { handingOut } from '@/server/route';

export const GET = handingOut(
  REPORT,
  ({ context, params, query }) => checkReport(context, params.id, query.format ?? 'html'),
  true,
);
