import { libraryDevices } from '@melto/services/house/library';
import { createDevice } from '@melto/services/house/ownDevices';
import { DEVICES, NEW_DEVICE } from '@/endpoints/conditions';
import { answering, changing } from '@/server/route';

export const GET = answering(DEVICES, ({ context }) => libraryDevices(context));

export const POST = changing(NEW_DEVICE, ({ context, body }) => createDevice(context, body));
