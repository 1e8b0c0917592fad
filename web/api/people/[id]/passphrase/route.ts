import { givePassphrase } from '@melto/services/people/people';
import { GIVE_PASSPHRASE } from '@/endpoints/people';
import { telling } from '@/server/route';

export const POST = telling(GIVE_PASSPHRASE, async ({ context, params }) => ({
  answer: await givePassphrase(context, params.id),
}));
