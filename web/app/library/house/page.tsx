import { ownHouse } from '@melto/services/house/ownHouse';
import { HouseSurface } from '@/features/library/HouseSurface';
import { context } from '@/server/context';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'House' };

export default async function Page() {
  return <HouseSurface house={await ownHouse(context())} zones={Intl.supportedValuesOf('timeZone')} />;
}
