import { shareReport } from '@melto/services/conformity/checkReports';
import { endPublicLink } from '@melto/services/kernel/publicLink';
import { SHARE_REPORT } from '@/endpoints/conformity';
import { changing } from '@/server/route';

export const PUT = changing(SHARE_REPORT, async ({ context, params, body }) => {
  if (body.shared) return shareReport(context, params.id);
  await endPublicLink(context, { resultId: params.id });
  return {};
});
