import { libraryDevices } from '@melto/services/house/library';
import { DevicesSurface } from '@/features/library/DevicesSurface';
import { context } from '@/server/context';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Devices' };

export default async function Page() {
  return <DevicesSurface devices={await libraryDevices(context())} />;
}
