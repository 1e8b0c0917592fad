import { machineKeys } from '@melto/services/people/machineKeys';
import { people } from '@melto/services/people/people';
import { ENDPOINTS } from '@/endpoints/all';
import { PeopleSurface } from '@/features/people/PeopleSurface';
import { roleActs } from '@/features/people/roleActs';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'People' };

export default async function Page() {
  const context = await pageContext('keeper');
  const [everybody, keys] = await Promise.all([people(context), machineKeys(context)]);
  return <PeopleSurface people={everybody} keys={keys} acts={roleActs(ENDPOINTS)} />;
}
