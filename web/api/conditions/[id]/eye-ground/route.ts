import { eyeGround } from '@melto/services/eye/eyeGround';
import { EYE_GROUND } from '@/endpoints/eye';
import { answering } from '@/server/route';

export const GET = answering(EYE_GROUND, ({ context, params, query }) =>
  eyeGround(context, params.id, query.listId),
);
