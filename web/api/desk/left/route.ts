import { leaveDesk } from '@melto/services/people/desks';
import { LEAVE_DESK } from '@/endpoints/people';
import { deskSession } from '@/server/ownSession';
import { telling } from '@/server/route';

export const POST = telling(LEAVE_DESK, async ({ context, caller }) => {
  await leaveDesk(context, deskSession(caller).secret);
  return { answer: {} };
});
