import { saveToleranceSet, toleranceSets } from '@melto/services/conformity/toleranceSets';
import { TOLERANCE_SETS, SAVE_TOLERANCE_SET } from '@/endpoints/conformity';
import { answering, changing } from '@/server/route';

export const GET = answering(TOLERANCE_SETS, ({ context }) => toleranceSets(context));

export const POST = changing(SAVE_TOLERANCE_SET, ({ context, body }) => saveToleranceSet(context, body));
