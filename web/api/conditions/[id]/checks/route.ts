import { judgeReadingOf } from '@melto/services/conformity/checks';
import { JUDGE } from '@/endpoints/conformity';
import { changing } from '@/server/route';

export const POST = changing(JUDGE, ({ context, params, body: { readingId, ...choice } }) =>
  judgeReadingOf(context, params.id, readingId, choice),
);
