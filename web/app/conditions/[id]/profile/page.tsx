import { profileSurface } from '@melto/services/overview/surfaces';
import { ProfileSurface } from '@/features/profile/ProfileSurface';
import { shownPage } from '@/server/conditionPage';
import type { PageParams } from '@/server/conditionPage';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Profile' };

export default async function Page(page: PageParams) {
  return <ProfileSurface {...await shownPage(page, profileSurface)} />;
}
