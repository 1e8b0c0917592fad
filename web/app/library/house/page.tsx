import { ownHouse } from '@melto/services/house/ownHouse';
import { logoOf } from '@melto/services/house/pictures';
import { HouseSurface } from '@/features/library/HouseSurface';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'House' };

export default async function Page() {
  const [house, logo] = await Promise.all([ownHouse(await pageContext()), logoOf(await pageContext())]);
  return <HouseSurface house={house} zones={Intl.supportedValuesOf('timeZone')} logo={logo} />;
}
