import { changePassphrase } from '@melto/services/people/signIn';
import { Problem } from '@melto/services/kernel/problem';
import { CHANGE_PASSPHRASE } from '@/endpoints/people';
import { telling } from '@/server/route';

export const PUT = telling(CHANGE_PASSPHRASE, async ({ context, caller, body }) => {
  if (caller?.secret === undefined)
    throw new Problem('not-ready', 'Nobody is signed in by a passphrase here.', 'Sign in by name before.');
  await changePassphrase(context, { ...body, secret: caller.secret });
  return { answer: {} };
});
