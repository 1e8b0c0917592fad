import { advanceClock } from '@melto/services/simulated/advanceClock';
import { MOVE_CLOCK } from '@/endpoints/house';
import { changing } from '@/server/route';

export const POST = changing(MOVE_CLOCK, async ({ context, body }) => ({
  offsetMs: await advanceClock(context, body.byMs),
}));
