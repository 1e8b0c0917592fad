import { archivedConditions } from '@melto/services/house/conditionRecord';
import { ArchivedSurface } from '@/features/library/ArchivedSurface';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Archived conditions' };

export default async function Page() {
  return <ArchivedSurface conditions={await archivedConditions(await pageContext())} />;
}
