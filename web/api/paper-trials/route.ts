import { beginPaperTrial, paperTrials } from '@melto/services/house/paperTrials';
import { BEGIN_TRIAL, TRIALS } from '@/endpoints/trials';
import { answering, changing } from '@/server/route';

export const GET = answering(TRIALS, ({ context }) => paperTrials(context));

export const POST = changing(BEGIN_TRIAL, ({ context, body }) => beginPaperTrial(context, body));
