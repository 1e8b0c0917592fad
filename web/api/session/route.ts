import { signIn } from '@melto/services/people/signIn';
import { SIGN_IN } from '@/endpoints/people';
import { coming } from '@/server/coming';
import { telling } from '@/server/route';

export const POST = telling(SIGN_IN, async ({ context, body }, { headers }) => ({
  answer: {},
  session: { kept: await signIn(context, coming(body, headers)) },
}));
