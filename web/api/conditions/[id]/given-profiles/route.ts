import { takeProfile } from '@melto/services/profile/givenProfile';
import { TAKE_PROFILE } from '@/endpoints/profile';
import { changing } from '@/server/route';

export const POST = changing(TAKE_PROFILE, ({ context, params, query, body }) =>
  takeProfile(context, params.id, { fileName: query.name, origin: query.origin, bytes: body }),
);
