import { ownHouse } from '@melto/services/house/ownHouse';
import { logoOf } from '@melto/services/house/pictures';
import { HouseSurface } from '@/features/library/HouseSurface';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'House' };

export default async function Page() {
  const context = await pageContext();
  const [house, logo] = await Promise.all([ownHouse(context), logoOf(context)]);
  return <HouseSurface house={house} zones={Intl.supportedValuesOf('timeZone')} logo={logo} />;
}
