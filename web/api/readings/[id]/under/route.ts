import { readingUnder } from '@melto/services/reading/readingUnder';
import { READING_UNDER } from '@/endpoints/light';
import { answering } from '@/server/route';

export const GET = answering(READING_UNDER, ({ context, params, query }) =>
  readingUnder(context, params.id, query.light, query.observer),
);
