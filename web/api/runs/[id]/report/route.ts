import { runReport } from '@melto/services/press/runReport';
import { RUN_REPORT } from '@/endpoints/runs';
import { analysisAsked } from '@/server/analysisAsked';
import { handingOut } from '@/server/route';

export const GET = handingOut(
  RUN_REPORT,
  ({ context, params, query: { format = 'html', ...asked } }) =>
    runReport(context, params.id, { ...analysisAsked(asked), format }),
  true,
);
