import { storePass } from '@melto/services/reading/storePass';
import { PASS } from '@/endpoints/reading';
import { judged } from '@/server/judged';
import { changing } from '@/server/route';

export const POST = changing(
  PASS,
  ({ context, params, body }) => storePass(context, params.code, body),
  (context, answer) => (answer.ok && answer.complete ? judged(context, answer) : Promise.resolve(answer)),
);
