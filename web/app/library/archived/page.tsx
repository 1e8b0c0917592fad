import { archivedConditions } from '@melto/services/house/conditionRecord';
import { ArchivedSurface } from '@/features/library/ArchivedSurface';
import { context } from '@/server/context';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Archived conditions' };

export default async function Page() {
  return <ArchivedSurface conditions={await archivedConditions(context())} />;
}
