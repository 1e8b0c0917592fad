import { libraryInkSets } from '@melto/services/house/inkSets';
import { InkSetsSurface } from '@/features/library/InkSetsSurface';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Ink sets' };

export default async function Page() {
  return <InkSetsSurface inkSets={await libraryInkSets(await pageContext())} />;
}
