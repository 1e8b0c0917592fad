import { readingPatches } from '@melto/services/reading/loadReading';
import { READING_PATCHES } from '@/endpoints/reading';
import { answering } from '@/server/route';

export const GET = answering(READING_PATCHES, ({ context, params }) => readingPatches(context, params.id));
