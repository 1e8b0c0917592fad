import { noteMoves } from '@melto/services/press/atThePress';
import { NOTE_MOVES } from '@/endpoints/runs';
import { changing } from '@/server/route';

export const POST = changing(NOTE_MOVES, async ({ context, params, body }) => {
  await noteMoves(context, params.id, body);
  return {};
});
