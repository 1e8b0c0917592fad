import { floor } from '@melto/services/overview/floor';
import { Floor } from '@/features/floor/Floor';
import { context } from '@/server/context';

export const dynamic = 'force-dynamic';

export default async function Page() {
  return <Floor initial={await floor(context())} />;
}
