import { previewMeasuredElsewhere } from '@melto/services/reading/measuredChart';
import { PREVIEW_MEASURED_ELSEWHERE } from '@/endpoints/reading';
import { answersOf } from '@/server/measuredAnswers';
import { workingOut } from '@/server/route';

export const POST = workingOut(PREVIEW_MEASURED_ELSEWHERE, ({ context, query, body }) =>
  previewMeasuredElsewhere(context, body, answersOf(query)),
);
