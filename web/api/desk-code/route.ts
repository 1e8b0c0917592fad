import { changeDeskCode } from '@melto/services/people/desks';
import { SET_DESK_CODE } from '@/endpoints/people';
import { ownSession } from '@/server/ownSession';
import { telling } from '@/server/route';

export const PUT = telling(SET_DESK_CODE, async ({ context, caller, body }) => {
  ownSession(caller);
  await changeDeskCode(context, body.code);
  return { answer: {} };
});
