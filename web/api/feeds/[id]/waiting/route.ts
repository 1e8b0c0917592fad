import { takeWaiting } from '@melto/services/press/feeds';
import { TAKE_WAITING } from '@/endpoints/runs';
import { changing } from '@/server/route';

export const POST = changing(TAKE_WAITING, ({ context, params }) => takeWaiting(context, params.id));
