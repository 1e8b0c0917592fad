import { createDevice } from '@melto/services/house/ownDevices';
import { NEW_DEVICE } from '@/endpoints/conditions';
import { changing } from '@/server/route';

export const dynamic = 'force-dynamic';

export const POST = changing(NEW_DEVICE, ({ context, body }) => createDevice(context, body));
