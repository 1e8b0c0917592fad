import { runReport } from '@melto/services/press/runReport';
import { RUN_REPORT } from '@/endpoints/runs';
import { handingOut } from '@/server/route';

export const dynamic = 'force-dynamic';

export const GET = handingOut(
  RUN_REPORT,
  ({ context, params, query }) =>
    runReport(context, params.id, {
      scope: query.scope ?? 'run',
      phase: query.phase,
      format: query.format ?? 'html',
    }),
  true,
);
