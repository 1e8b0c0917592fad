import { colourListDetail, colourLists } from '@melto/services/lists/colourLists';
import { ListsSurface } from '@/features/lists/ListsSurface';
import { chosenVersion } from '@/server/libraryPage';
import type { LibraryQuery } from '@/server/libraryPage';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Colour lists' };

export default async function Page({ searchParams }: { searchParams: Promise<LibraryQuery> }) {
  const context = await pageContext();
  const query = await searchParams;
  const lists = await colourLists(context);
  const any = lists.length > 0 || query.set !== undefined;
  const shown = any ? await chosenVersion(query, lists, (id) => colourListDetail(context, id)) : undefined;
  return <ListsSurface lists={lists} shown={shown} />;
}
