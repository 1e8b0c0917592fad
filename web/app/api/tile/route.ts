import { calibrateTile } from '@melto/services/reading/desk';
import { CALIBRATE_TILE } from '@/endpoints/reading';
import { changing } from '@/server/route';

export const dynamic = 'force-dynamic';

export const POST = changing(CALIBRATE_TILE, ({ context, query }) => calibrateTile(context, query.sheet));
