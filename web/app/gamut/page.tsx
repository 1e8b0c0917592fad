import { profileShelf } from '@melto/services/profile/shelf';
import { GamutSurface } from '@/features/gamut/GamutSurface';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Gamut' };

export default async function Page() {
  return <GamutSurface shelf={await profileShelf(await pageContext())} />;
}
