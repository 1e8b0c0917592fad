import { previewMeasuredChart } from '@melto/services/reading/measuredChart';
import { PREVIEW_MEASURED_CHART } from '@/endpoints/reading';
import { answersOf } from '@/server/measuredAnswers';
import { workingOut } from '@/server/route';

export const POST = workingOut(PREVIEW_MEASURED_CHART, ({ context, params, query, body }) =>
  previewMeasuredChart(context, params.id, body, answersOf(query)),
);
