import { storePatch } from '@melto/services/reading/storePatch';
import { PATCH } from '@/endpoints/reading';
import { judged } from '@/server/judged';
import { changing } from '@/server/route';

export const POST = changing(
  PATCH,
  ({ context, params, body }) => storePatch(context, params.code, body),
  (context, answer) => (answer.ok && answer.complete ? judged(context, answer) : Promise.resolve(answer)),
);
