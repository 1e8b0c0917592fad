import { putKeptProfileAway } from '@melto/services/profile/keptProfiles';
import { PUT_KEPT_PROFILE_AWAY } from '@/endpoints/profile';
import { changing } from '@/server/route';

export const PUT = changing(PUT_KEPT_PROFILE_AWAY, async ({ context, params, body }) => {
  await putKeptProfileAway(context, params.id, body.away);
  return {};
});
