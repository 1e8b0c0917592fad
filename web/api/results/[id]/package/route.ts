import { profilePackage } from '@melto/services/overview/profilePackage';
import { PROFILE_PACKAGE } from '@/endpoints/profile';
import { handingOut } from '@/server/route';

export const GET = handingOut(PROFILE_PACKAGE, ({ context, params }) => profilePackage(context, params.id));
