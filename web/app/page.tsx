import { floor } from '@melto/services/overview/floor';
import { offersSampleHouse } from '@melto/services/simulated/sampleHouse';
import { Floor } from '@/features/floor/Floor';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';

export default async function Page() {
  const own = await pageContext();
  return <Floor initial={await floor(own)} sampleOffered={offersSampleHouse(own)} />;
}
