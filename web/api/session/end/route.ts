import { signOut } from '@melto/services/people/signIn';
import { Problem } from '@melto/services/kernel/problem';
import { SIGN_OUT } from '@/endpoints/people';
import { telling } from '@/server/route';

export const POST = telling(SIGN_OUT, async ({ context, caller, body }) => {
  // A desk stays signed in whoever leaves it.
  if (caller?.desk !== undefined)
    throw new Problem(
      'not-ready',
      'This is a desk of the house.',
      'Leave it; it ends when whoever made it signs out everywhere.',
    );
  if (caller?.secret !== undefined) await signOut(context, caller.secret, body.everywhere);
  return { answer: {}, session: { kept: undefined } };
});
