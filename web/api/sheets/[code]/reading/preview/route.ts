import { previewReading } from '@melto/services/reading/importReading';
import { PREVIEW_READING } from '@/endpoints/reading';
import { answersOf } from '@/server/measuredAnswers';
import { workingOut } from '@/server/route';

export const POST = workingOut(PREVIEW_READING, ({ context, params, query, body }) =>
  previewReading(context, params.code, body, answersOf(query)),
);
