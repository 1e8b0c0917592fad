import { makeBalance } from '@melto/services/calibration/balance';
import { MAKE_BALANCE } from '@/endpoints/calibration';
import { changing } from '@/server/route';

export const POST = changing(MAKE_BALANCE, ({ context, params, body }) =>
  makeBalance(context, params.id, body.readingId),
);
