import { takeMeasuredHouse } from '@melto/services/house/measuredHouse';
import { TAKE_MEASURED_ELSEWHERE } from '@/endpoints/reading';
import { answersOf } from '@/server/measuredAnswers';
import { measuredConditionOf } from '@/server/measuredCondition';
import { changing } from '@/server/route';

export const POST = changing(TAKE_MEASURED_ELSEWHERE, ({ context, query, body }) =>
  takeMeasuredHouse(context, measuredConditionOf(query), query.name, body, answersOf(query)),
);
