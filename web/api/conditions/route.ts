import { createCondition } from '@melto/services/house/newCondition';
import { NEW_CONDITION } from '@/endpoints/conditions';
import { changing } from '@/server/route';

export const POST = changing(NEW_CONDITION, ({ context, body }) => createCondition(context, body));
