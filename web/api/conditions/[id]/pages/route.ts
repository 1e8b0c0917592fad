import { pagesOf } from '@melto/services/charts/devicePages';
import { PAGES_OF_CONDITION } from '@/endpoints/charts';
import { answering } from '@/server/route';

export const GET = answering(PAGES_OF_CONDITION, ({ context, params }) => pagesOf(context, params.id));
