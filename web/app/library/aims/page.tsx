import { aimSets } from '@melto/services/aimSets';
import { AimSetsSurface } from '@/features/library/AimSetsSurface';
import { services } from '@/server/services';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Aim sets' };

export default async function Page() {
  return <AimSetsSurface sets={await aimSets(services())} />;
}
