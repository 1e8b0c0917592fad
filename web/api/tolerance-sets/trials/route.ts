import { trialChecks } from '@melto/services/conformity/trialChecks';
import { TRIALS } from '@/endpoints/conformity';
import { answering } from '@/server/route';

export const GET = answering(TRIALS, ({ context }) => trialChecks(context));
