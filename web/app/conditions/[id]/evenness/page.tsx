import { pressView } from '@melto/services/calibration/pressView';
import { EvennessSurface } from '@/features/press/EvennessSurface';
import { shownPage } from '@/server/conditionPage';
import type { PageParams } from '@/server/conditionPage';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Evenness' };

export default async function Page(page: PageParams) {
  const view = await shownPage(page, (context, id, version) => pressView(context, id, 'evenness', version));
  return <EvennessSurface view={view} />;
}
