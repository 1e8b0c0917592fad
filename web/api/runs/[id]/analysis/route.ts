import { runAnalysis } from '@melto/services/press/analysis';
import { RUN_ANALYSIS } from '@/endpoints/runs';
import { analysisAsked } from '@/server/analysisAsked';
import { answering } from '@/server/route';

export const GET = answering(RUN_ANALYSIS, ({ context, params, query }) =>
  runAnalysis(context, params.id, analysisAsked(query)),
);
