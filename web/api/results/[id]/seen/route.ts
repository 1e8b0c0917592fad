import { seenCheck } from '@melto/services/conformity/seenCheck';
import { SEEN } from '@/endpoints/conformity';
import { answering } from '@/server/route';

export const GET = answering(SEEN, ({ context, params, query: { light, observer } }) =>
  seenCheck(context, params.id, light, observer),
);
