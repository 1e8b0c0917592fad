import { readingView } from '@melto/services/reading/readingView';
import { READING } from '@/endpoints/reading';
import { answering } from '@/server/route';

export const GET = answering(READING, ({ context, params }) => readingView(context, params.id));
