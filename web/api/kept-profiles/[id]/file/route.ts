import { keptProfileFile } from '@melto/services/profile/keptProfiles';
import { KEPT_PROFILE_FILE } from '@/endpoints/profile';
import { handingOut } from '@/server/route';

export const GET = handingOut(KEPT_PROFILE_FILE, ({ context, params }) =>
  keptProfileFile(context, params.id),
);
