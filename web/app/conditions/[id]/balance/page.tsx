import { pressView } from '@melto/services/calibration/pressView';
import { BalanceSurface } from '@/features/press/BalanceSurface';
import { shownPage } from '@/server/conditionPage';
import type { PageParams } from '@/server/conditionPage';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Balance' };

export default async function Page(page: PageParams) {
  const view = await shownPage(page, (context, id, version) => pressView(context, id, 'balance', version));
  return <BalanceSurface view={view} />;
}
