import { toleranceSets } from '@melto/services/toleranceSets';
import { TolerancesSurface } from '@/features/library/TolerancesSurface';
import { services } from '@/server/services';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Tolerance sets' };

export default async function Page({ searchParams }: { searchParams: Promise<{ set?: string }> }) {
  const wanted = Number((await searchParams).set);
  const sets = await toleranceSets(services());
  return <TolerancesSurface sets={sets} shown={sets.find(({ id }) => id === wanted) ?? sets[0]} />;
}
