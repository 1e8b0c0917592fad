import { trialPoints } from '@melto/services/house/paperTrials';
import { TRIAL_POINTS } from '@/endpoints/trials';
import { answering } from '@/server/route';

export const GET = answering(TRIAL_POINTS, ({ context, query: { stockIds, ...query } }) =>
  trialPoints(context, { ...query, stockIds: stockIds.split(',').map(Number) }),
);
