import { conformitySurface } from '@melto/services/overview/proofSurfaces';
import { ConformitySurface } from '@/features/conformity/ConformitySurface';
import { shownPage } from '@/server/conditionPage';
import type { PageParams } from '@/server/conditionPage';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Conformity' };

export default async function Page(page: PageParams) {
  return <ConformitySurface {...await shownPage(page, conformitySurface)} />;
}
