import { feeds } from '@melto/services/press/feeds';
import { FeedsSurface } from '@/features/run/FeedsSurface';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Feeds' };

export default async function Page() {
  return <FeedsSurface feeds={await feeds(await pageContext())} />;
}
