import { readingsOf } from '@melto/services/reading/readingView';
import { READINGS } from '@/endpoints/reading';
import { answering } from '@/server/route';

export const GET = answering(READINGS, ({ context, params, query }) => readingsOf(context, params.id, query));
