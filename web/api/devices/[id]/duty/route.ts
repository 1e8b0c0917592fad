import { dutyDone } from '@melto/services/house/library';
import { DUTY_DONE } from '@/endpoints/conditions';
import { changing } from '@/server/route';

export const POST = changing(DUTY_DONE, ({ context, params }) => dutyDone(context, params.id));
