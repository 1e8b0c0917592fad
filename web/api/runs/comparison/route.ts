import { compareRuns } from '@melto/services/press/compareRuns';
import { COMPARE_RUNS } from '@/endpoints/runs';
import { answering } from '@/server/route';

export const GET = answering(COMPARE_RUNS, ({ context, query }) =>
  compareRuns(context, query.runs.split(',').map(Number), query.phase),
);
