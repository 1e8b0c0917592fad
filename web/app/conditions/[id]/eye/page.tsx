import { conditionOf } from '@melto/services/ledger/conditions';
import { EyeSurface } from '@/features/eye/EyeSurface';
import { shownPage } from '@/server/conditionPage';
import type { PageParams } from '@/server/conditionPage';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Eye’s check' };

export default async function Page(page: PageParams) {
  const condition = await shownPage(page, conditionOf);
  return <EyeSurface condition={condition} simulated={condition.deviceDriver !== ''} />;
}
