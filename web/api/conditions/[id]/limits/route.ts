import { editLimits, proposeLimits } from '@melto/services/calibration/limits';
import { PROPOSE_LIMITS, SET_LIMITS } from '@/endpoints/calibration';
import { changing } from '@/server/route';

export const POST = changing(PROPOSE_LIMITS, ({ context, params, body }) =>
  proposeLimits(context, params.id, body.readingId),
);

export const PUT = changing(SET_LIMITS, ({ context, params, body }) => editLimits(context, params.id, body));
