import { takeMeasuredChart, ticksOf } from '@melto/services/reading/measuredChart';
import { TAKE_MEASURED_CHART } from '@/endpoints/reading';
import { answersOf } from '@/server/measuredAnswers';
import { changing } from '@/server/route';

export const POST = changing(TAKE_MEASURED_CHART, async ({ context, params, query, body }) =>
  takeMeasuredChart(
    context,
    params.id,
    query.name,
    body,
    await ticksOf(context, params.id),
    answersOf(query),
  ),
);
