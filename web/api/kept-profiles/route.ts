import { keepProfile } from '@melto/services/profile/keptProfiles';
import { KEEP_PROFILE } from '@/endpoints/profile';
import { changing } from '@/server/route';

export const POST = changing(KEEP_PROFILE, ({ context, query: { name, origin, note = '' }, body }) =>
  keepProfile(context, { fileName: name, bytes: body }, { origin, note }),
);
