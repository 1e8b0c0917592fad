import { takeDesk } from '@melto/services/people/desks';
import { TAKE_DESK } from '@/endpoints/people';
import { deskSession } from '@/server/ownSession';
import { telling } from '@/server/route';

export const POST = telling(TAKE_DESK, async ({ context, caller, body }) => {
  const { secret, origin } = deskSession(caller);
  await takeDesk(context, secret, { ...body, origin });
  return { answer: {} };
});
