import { sayAimMode } from '@melto/services/conformity/aimSets';
import { SAY_AIM_MODE } from '@/endpoints/conformity';
import { changing } from '@/server/route';

export const POST = changing(SAY_AIM_MODE, ({ context, params, body }) =>
  sayAimMode(context, params.id, body.mode),
);
