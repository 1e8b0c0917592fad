import { pullSheet } from '@melto/services/simulated/pressHand';
import { PULL_SHEET } from '@/endpoints/runs';
import { changing } from '@/server/route';

export const POST = changing(PULL_SHEET, ({ context, params, body }) =>
  pullSheet(context, params.id, body.impression),
);
