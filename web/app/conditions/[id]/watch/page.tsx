import { watchSurface } from '@melto/services/overview/proofSurfaces';
import { WatchSurface } from '@/features/watch/WatchSurface';
import { shownPage } from '@/server/conditionPage';
import type { PageParams } from '@/server/conditionPage';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Watch' };

export default async function Page(page: PageParams) {
  return <WatchSurface {...await shownPage(page, watchSurface)} />;
}
