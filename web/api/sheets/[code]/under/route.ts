import { underInstrument } from '@melto/services/reading/underInstrument';
import { UNDER_INSTRUMENT } from '@/endpoints/reading';
import { answering } from '@/server/route';

export const GET = answering(UNDER_INSTRUMENT, ({ context, params, query }) =>
  underInstrument(context, params.code, query),
);
