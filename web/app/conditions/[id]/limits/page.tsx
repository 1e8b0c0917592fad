import { pressView } from '@melto/services/calibration/pressView';
import { LimitsSurface } from '@/features/press/LimitsSurface';
import { shownPage } from '@/server/conditionPage';
import type { PageParams } from '@/server/conditionPage';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Limits' };

export default async function Page(page: PageParams) {
  const view = await shownPage(page, (context, id, version) => pressView(context, id, 'limits', version));
  return <LimitsSurface view={view} />;
}
