import { makeCurves } from '@melto/services/calibration/curves';
import { MAKE_CURVES } from '@/endpoints/calibration';
import { changing } from '@/server/route';

export const dynamic = 'force-dynamic';

export const POST = changing(MAKE_CURVES, ({ context, params, body }) =>
  makeCurves(context, params.id, body),
);
