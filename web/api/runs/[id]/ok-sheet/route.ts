import { markOkSheet } from '@melto/services/press/atThePress';
import { MARK_OK_SHEET } from '@/endpoints/runs';
import { changing } from '@/server/route';

export const PUT = changing(MARK_OK_SHEET, async ({ context, params, body }) => {
  await markOkSheet(context, params.id, body);
  return {};
});
