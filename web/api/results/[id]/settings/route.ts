import { profileSettings } from '@melto/services/profile/profileSettings';
import { PROFILE_SETTINGS } from '@/endpoints/profile';
import { handingOut } from '@/server/route';

export const GET = handingOut(PROFILE_SETTINGS, ({ context, params }) => profileSettings(context, params.id));
