import { knowInstrument } from '@melto/services/reading/instruments';
import { KNOW_INSTRUMENT } from '@/endpoints/instruments';
import { changing } from '@/server/route';

export const POST = changing(KNOW_INSTRUMENT, ({ context, body }) => {
  const { apertureMm = null, filter = '', backing = '', simulated = false, ...told } = body;
  return knowInstrument(context, { ...told, apertureMm, filter, backing, simulated });
});
