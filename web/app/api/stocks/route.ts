import { createStock } from '@melto/services/house/ownDevices';
import { NEW_STOCK } from '@/endpoints/conditions';
import { changing } from '@/server/route';

export const dynamic = 'force-dynamic';

export const POST = changing(NEW_STOCK, ({ context, body }) => createStock(context, body));
