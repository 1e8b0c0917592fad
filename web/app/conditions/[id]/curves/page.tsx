import { pressView } from '@melto/services/calibration/pressView';
import { CurvesSurface } from '@/features/press/CurvesSurface';
import { shownPage } from '@/server/conditionPage';
import type { PageParams } from '@/server/conditionPage';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Curves' };

export default async function Page(page: PageParams) {
  const view = await shownPage(page, (context, id, version) => pressView(context, id, 'curves', version));
  return <CurvesSurface view={view} />;
}
