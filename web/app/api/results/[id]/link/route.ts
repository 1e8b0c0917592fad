import { shareReport, unshareReport } from '@melto/services/conformity/checkReports';
import { SHARE_REPORT } from '@/endpoints/conformity';
import { changing } from '@/server/route';

export const dynamic = 'force-dynamic';

export const PUT = changing(SHARE_REPORT, async ({ context, params, body }) => {
  if (body.shared) return shareReport(context, params.id);
  await unshareReport(context, params.id);
  return {};
});
