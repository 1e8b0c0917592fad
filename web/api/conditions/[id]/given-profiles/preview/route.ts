import { previewProfile } from '@melto/services/profile/givenProfile';
import { PREVIEW_PROFILE } from '@/endpoints/profile';
import { changing } from '@/server/route';

export const POST = changing(PREVIEW_PROFILE, ({ context, params, query, body }) =>
  previewProfile(context, params.id, { fileName: query.name, bytes: body }),
);
