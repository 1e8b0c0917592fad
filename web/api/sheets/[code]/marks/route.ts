import { markStrip } from '@melto/services/reading/desk';
import { MARK_STRIP } from '@/endpoints/reading';
import { changing } from '@/server/route';

export const POST = changing(MARK_STRIP, async ({ context, params, body }) => ({
  marked: await markStrip(context, params.code, body.strip, body.marked),
}));
