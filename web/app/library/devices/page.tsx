import { libraryDevices } from '@melto/services/house/library';
import { DevicesSurface } from '@/features/library/DevicesSurface';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Devices' };

export default async function Page() {
  return <DevicesSurface devices={await libraryDevices(await pageContext())} />;
}
