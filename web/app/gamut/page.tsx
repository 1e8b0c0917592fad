import { bodySources } from '@melto/services/overview/bodySources';
import { profileShelf } from '@melto/services/profile/shelf';
import { GamutSurface } from '@/features/gamut/GamutSurface';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Gamut' };

export default async function Page() {
  const context = await pageContext();
  const [shelf, measured] = await Promise.all([profileShelf(context), bodySources(context)]);
  return <GamutSurface shelf={shelf} measured={measured} />;
}
