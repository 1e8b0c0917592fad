import { beginPasskey } from '@melto/services/people/passkeys';
import { BEGIN_PASSKEY } from '@/endpoints/people';
import { ownSession } from '@/server/ownSession';
import { telling } from '@/server/route';
import { siteOf } from '@/server/site';

export const POST = telling(BEGIN_PASSKEY, async ({ context, caller }, { headers }) => {
  ownSession(caller);
  return { answer: { ...(await beginPasskey(context, siteOf(headers))) } };
});
