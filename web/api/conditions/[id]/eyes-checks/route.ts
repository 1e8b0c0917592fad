import { eyesChecks, keepEyesCheck } from '@melto/services/eye/eyesChecks';
import { EYES_CHECKS, KEEP_EYES_CHECK } from '@/endpoints/eye';
import { answering, changing } from '@/server/route';

export const GET = answering(EYES_CHECKS, ({ context, params }) => eyesChecks(context, params.id));

export const POST = changing(KEEP_EYES_CHECK, ({ context, params, body }) =>
  keepEyesCheck(context, params.id, body),
);
