import { libraryStocks } from '@melto/services/house/library';
import { createStock } from '@melto/services/house/ownDevices';
import { STOCKS, NEW_STOCK } from '@/endpoints/conditions';
import { answering, changing } from '@/server/route';

export const GET = answering(STOCKS, ({ context }) => libraryStocks(context));

export const POST = changing(NEW_STOCK, ({ context, body }) => createStock(context, body));
