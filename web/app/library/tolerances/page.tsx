import {
  loadToleranceSet,
  toleranceSets,
  toleranceSetVersions,
} from '@melto/services/conformity/toleranceSets';
import { TolerancesSurface } from '@/features/library/TolerancesSurface';
import { chosenVersion } from '@/server/libraryPage';
import type { LibraryQuery } from '@/server/libraryPage';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Tolerance sets' };

export default async function Page({ searchParams }: { searchParams: Promise<LibraryQuery> }) {
  const context = await pageContext();
  const sets = await toleranceSets(context);
  const shown = await chosenVersion(await searchParams, sets, (id) => loadToleranceSet(context, id));
  return (
    <TolerancesSurface sets={sets} shown={shown} versions={await toleranceSetVersions(context, shown.id)} />
  );
}
