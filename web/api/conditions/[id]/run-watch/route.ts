import { startRunWatch } from '@melto/services/press/runWatch';
import { START_RUN_WATCH } from '@/endpoints/watch';
import { changing } from '@/server/route';

export const POST = changing(START_RUN_WATCH, ({ context, params, body: { runIds, ...schedule } }) =>
  startRunWatch(context, params.id, schedule, runIds),
);
