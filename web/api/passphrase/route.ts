import { changePassphrase } from '@melto/services/people/signIn';
import { CHANGE_PASSPHRASE } from '@/endpoints/people';
import { ownSession } from '@/server/ownSession';
import { telling } from '@/server/route';

export const PUT = telling(CHANGE_PASSPHRASE, async ({ context, caller, body }) => {
  await changePassphrase(context, { ...body, secret: ownSession(caller) });
  return { answer: {} };
});
