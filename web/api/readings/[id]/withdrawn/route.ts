import { withdrawReading } from '@melto/services/watch/withdrawReading';
import { WITHDRAW_READING } from '@/endpoints/reading';
import { changing } from '@/server/route';

export const PUT = changing(WITHDRAW_READING, async ({ context, params, body }) => {
  await withdrawReading(context, params.id, body.withdrawn);
  return {};
});
