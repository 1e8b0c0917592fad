import { Problem } from '@melto/services/kernel/problem';
import { startRunWatch } from '@melto/services/press/runWatch';
import { startWatch } from '@melto/services/watch/watch';
import { watchView } from '@melto/services/watch/watchView';
import { WATCH, START_WATCH } from '@/endpoints/watch';
import { answering, changing } from '@/server/route';

export const dynamic = 'force-dynamic';

export const GET = answering(WATCH, ({ context, params }) => watchView(context, params.id));

export const POST = changing(
  START_WATCH,
  ({ context, params, body: { readingIds = [], runIds = [], ...schedule } }) => {
    if (readingIds.length > 0 === runIds.length > 0)
      throw new Problem(
        'bad-input',
        'A zero reading is made of readings of the watch wedge, or of runs.',
        'Give one of the two.',
        'readingIds',
      );
    return runIds.length > 0
      ? startRunWatch(context, params.id, schedule, runIds)
      : startWatch(context, params.id, schedule, readingIds);
  },
);
