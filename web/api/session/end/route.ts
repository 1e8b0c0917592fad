import { signOut } from '@melto/services/people/signIn';
import { SIGN_OUT } from '@/endpoints/people';
import { telling } from '@/server/route';

export const POST = telling(SIGN_OUT, async ({ context, caller, body }) => {
  if (caller?.secret !== undefined) await signOut(context, caller.secret, body.everywhere);
  return { answer: {}, session: { kept: undefined } };
});
