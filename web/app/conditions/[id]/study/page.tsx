import { conditionOf } from '@melto/services/ledger/conditions';
import { StudySurface } from '@/features/study/StudySurface';
import { shownPage } from '@/server/conditionPage';
import type { PageParams } from '@/server/conditionPage';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Brightener study' };

export default async function Page(page: PageParams) {
  const condition = await shownPage(page, conditionOf);
  return <StudySurface condition={condition} simulated={condition.deviceDriver !== ''} />;
}
