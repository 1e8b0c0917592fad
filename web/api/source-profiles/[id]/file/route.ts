import { sourceProfileFile } from '@melto/services/profile/shelf';
import { SOURCE_PROFILE_FILE } from '@/endpoints/profile';
import { handingOut } from '@/server/route';

export const GET = handingOut(SOURCE_PROFILE_FILE, ({ context, params }) =>
  sourceProfileFile(context, params.id),
);
