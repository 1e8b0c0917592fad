import { removePasskey } from '@melto/services/people/passkeys';
import { REMOVE_PASSKEY } from '@/endpoints/people';
import { ownSession } from '@/server/ownSession';
import { telling } from '@/server/route';

export const POST = telling(REMOVE_PASSKEY, async ({ context, caller, params }) => {
  ownSession(caller);
  await removePasskey(context, params.id);
  return { answer: {} };
});
