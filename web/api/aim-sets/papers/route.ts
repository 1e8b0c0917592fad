import { papersToMoveTo } from '@melto/services/conformity/paperAims';
import { PAPERS } from '@/endpoints/conformity';
import { answering } from '@/server/route';

export const GET = answering(PAPERS, ({ context }) => papersToMoveTo(context));
