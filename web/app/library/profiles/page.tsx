import { profileShelf } from '@melto/services/profile/shelf';
import { ShelfSurface } from '@/features/shelf/ShelfSurface';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Profiles' };

export default async function Page() {
  return <ShelfSurface shelf={await profileShelf(await pageContext())} />;
}
