import { readingFile } from '@melto/services/reading/readingView';
import { READING_FILE } from '@/endpoints/reading';
import { handingOut } from '@/server/route';

export const GET = handingOut(READING_FILE, ({ context, params }) => readingFile(context, params.id));
