import { tileRead } from '@melto/services/reading/instruments';
import { TILE_READ } from '@/endpoints/instruments';
import { changing } from '@/server/route';

export const POST = changing(TILE_READ, ({ context, params }) => tileRead(context, params.id));
