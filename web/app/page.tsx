import { floor } from '@melto/services/overview/floor';
import { Floor } from '@/features/floor/Floor';
import { services } from '@/server/services';

export const dynamic = 'force-dynamic';

export default async function Page() {
  return <Floor initial={await floor(services())} />;
}
