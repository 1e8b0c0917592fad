import { readingsToAim } from '@melto/services/conformity/readingsToAim';
import { READINGS_TO_AIM } from '@/endpoints/conformity';
import { answering } from '@/server/route';

export const GET = answering(READINGS_TO_AIM, ({ context }) => readingsToAim(context));
