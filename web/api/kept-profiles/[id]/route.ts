import { changeKeptProfile } from '@melto/services/profile/keptProfiles';
import { CHANGE_KEPT_PROFILE } from '@/endpoints/profile';
import { changing } from '@/server/route';

export const PUT = changing(CHANGE_KEPT_PROFILE, async ({ context, params, body }) => {
  await changeKeptProfile(context, params.id, body);
  return {};
});
