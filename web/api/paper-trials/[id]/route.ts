import { paperTrial } from '@melto/services/house/paperTrials';
import { TRIAL } from '@/endpoints/trials';
import { answering } from '@/server/route';

export const GET = answering(TRIAL, ({ context, params }) => paperTrial(context, params.id));
