import { acts } from '@melto/services/people/acts';
import { ACTS } from '@/endpoints/people';
import { answering } from '@/server/route';

const USUAL = 100;

export const GET = answering(ACTS, ({ context, query }) => acts(context, { limit: USUAL, ...query }));
