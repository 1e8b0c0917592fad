import { aimSetDetail } from '@melto/services/conformity/aimSetDetail';
import { aimSets } from '@melto/services/conformity/aimSets';
import { AimSetsSurface } from '@/features/library/AimSetsSurface';
import { pageContext } from '@/server/pageContext';
import { chosenVersion } from '@/server/libraryPage';
import type { LibraryQuery } from '@/server/libraryPage';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Aim sets' };

export default async function Page({ searchParams }: { searchParams: Promise<LibraryQuery> }) {
  const context = await pageContext();
  const sets = await aimSets(context);
  const shown = await chosenVersion(await searchParams, sets, (id) => aimSetDetail(context, id));
  return <AimSetsSurface sets={sets} shown={shown} />;
}
