import { floor } from '@melto/services/overview/floor';
import { offersSampleHouse } from '@melto/services/simulated/sampleHouse';
import { Floor } from '@/features/floor/Floor';
import { context } from '@/server/context';

export const dynamic = 'force-dynamic';

export default async function Page() {
  const own = context();
  return <Floor initial={await floor(own)} sampleOffered={offersSampleHouse(own)} />;
}
