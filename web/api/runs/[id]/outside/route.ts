import { outsideReadings } from '@melto/services/press/analysis';
import { RUN_OUTSIDE } from '@/endpoints/runs';
import { answering } from '@/server/route';

export const GET = answering(RUN_OUTSIDE, ({ context, params, query }) =>
  outsideReadings(context, params.id, query),
);
