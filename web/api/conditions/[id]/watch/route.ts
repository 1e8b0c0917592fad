import { watchView } from '@melto/services/watch/watchView';
import { startWatch } from '@melto/services/watch/watch';
import { WATCH, START_WATCH } from '@/endpoints/watch';
import { answering, changing } from '@/server/route';

export const GET = answering(WATCH, ({ context, params }) => watchView(context, params.id));

export const POST = changing(START_WATCH, ({ context, params, body: { readingIds, ...schedule } }) =>
  startWatch(context, params.id, schedule, readingIds),
);
