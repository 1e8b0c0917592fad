import { beginPasskeySignIn } from '@melto/services/people/passkeys';
import { BEGIN_PASSKEY_SIGN_IN } from '@/endpoints/people';
import { telling } from '@/server/route';
import { siteOf } from '@/server/site';

export const POST = telling(BEGIN_PASSKEY_SIGN_IN, async ({ context }, { headers }) => ({
  answer: { ...(await beginPasskeySignIn(context, siteOf(headers))) },
}));
