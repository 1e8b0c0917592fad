import { noteResult } from '@melto/services/ledger/notes';
import { NOTE_RESULT } from '@/endpoints/conformity';
import { changing } from '@/server/route';

export const PUT = changing(NOTE_RESULT, async ({ context, params, body }) => {
  await noteResult(context, params.id, body.note);
  return {};
});
