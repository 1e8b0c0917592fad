import { endSharedRun, sharedRunCode, shareRun } from '@melto/services/press/sharedRun';
import { RUN_LINK, SHARE_RUN } from '@/endpoints/runs';
import { analysisAsked } from '@/server/analysisAsked';
import { answering, changing } from '@/server/route';

export const GET = answering(RUN_LINK, async ({ context, params, query }) => ({
  code: await sharedRunCode(context, params.id, analysisAsked(query)),
}));

export const PUT = changing(SHARE_RUN, async ({ context, params, body: { shared, ...asked } }) => {
  if (shared) return shareRun(context, params.id, analysisAsked(asked));
  await endSharedRun(context, params.id, analysisAsked(asked));
  return {};
});
