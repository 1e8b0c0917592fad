import { standardProfileFile } from '@melto/services/profile/shelf';
import { STANDARD_PROFILE_FILE } from '@/endpoints/profile';
import { handingOut } from '@/server/route';

export const GET = handingOut(STANDARD_PROFILE_FILE, ({ params }) =>
  Promise.resolve(standardProfileFile(params.key)),
);
