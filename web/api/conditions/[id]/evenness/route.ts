import { correctEvenness } from '@melto/services/calibration/evenness';
import { CORRECT_EVENNESS } from '@/endpoints/calibration';
import { changing } from '@/server/route';

export const POST = changing(CORRECT_EVENNESS, ({ context, params, body }) =>
  correctEvenness(context, params.id, body.readingId),
);
