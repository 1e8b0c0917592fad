import { signInByPasskey } from '@melto/services/people/passkeys';
import { PASSKEY_SIGN_IN } from '@/endpoints/people';
import { addressOf } from '@/server/caller';
import { telling } from '@/server/route';
import { siteOf } from '@/server/site';

export const POST = telling(PASSKEY_SIGN_IN, async ({ context, body }, { headers }) => ({
  answer: {},
  session: {
    kept: await signInByPasskey(context, siteOf(headers), {
      response: body.response,
      agent: headers.get('user-agent') ?? '',
      origin: { keyId: null, origin: addressOf(headers) },
    }),
  },
}));
