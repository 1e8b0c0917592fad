import { deliver } from '@melto/services/press/feeds';
import { DELIVER } from '@/endpoints/runs';
import { changing } from '@/server/route';

export const POST = changing(DELIVER, ({ context, params, body }) => deliver(context, params.id, body));
