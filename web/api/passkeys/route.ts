import { keepPasskey, passkeys } from '@melto/services/people/passkeys';
import { KEEP_PASSKEY, PASSKEYS } from '@/endpoints/people';
import { ownSession } from '@/server/ownSession';
import { answering, telling } from '@/server/route';
import { siteOf } from '@/server/site';

export const GET = answering(PASSKEYS, ({ context }) => passkeys(context));

export const POST = telling(KEEP_PASSKEY, async ({ context, caller, body }, { headers }) => {
  ownSession(caller);
  await keepPasskey(context, siteOf(headers), body);
  return { answer: {} };
});
