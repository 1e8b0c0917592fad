import { keepTemplate } from '@melto/services/house/conditionRecord';
import { KEEP_TEMPLATE } from '@/endpoints/conditions';
import { changing } from '@/server/route';

export const PUT = changing(KEEP_TEMPLATE, ({ context, params, body }) =>
  keepTemplate(context, params.id, body.keep, body.points),
);
