import { changeInstrument } from '@melto/services/reading/instruments';
import { CHANGE_INSTRUMENT } from '@/endpoints/instruments';
import { changing } from '@/server/route';

export const PUT = changing(CHANGE_INSTRUMENT, async ({ context, params, body }) => {
  await changeInstrument(context, params.id, body);
  return {};
});
