import { requestProfile } from '@melto/services/profile/requestProfile';
import { BUILD_PROFILE } from '@/endpoints/profile';
import { changing } from '@/server/route';

export const POST = changing(BUILD_PROFILE, ({ context, params, body }) =>
  requestProfile(context, params.id, body),
);
