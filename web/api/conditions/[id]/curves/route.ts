import { makeCurves } from '@melto/services/calibration/curves';
import { tviOf } from '@melto/services/conformity/askedTvi';
import { MAKE_CURVES } from '@/endpoints/calibration';
import { changing } from '@/server/route';

export const POST = changing(MAKE_CURVES, async ({ context, params, body: { tvi, ...choices } }) =>
  makeCurves(context, params.id, { ...choices, tvi: await tviOf(context, params.id, tvi) }),
);
