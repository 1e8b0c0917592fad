import { search } from '@melto/services/overview/search';
import { SEARCH } from '@/endpoints/house';
import { answering } from '@/server/route';

export const GET = answering(SEARCH, ({ context, query }) => search(context, query.q ?? ''));
