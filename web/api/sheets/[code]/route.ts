import { deskState } from '@melto/services/reading/desk';
import { DESK } from '@/endpoints/reading';
import { answering } from '@/server/route';

export const GET = answering(DESK, ({ context, params }) => deskState(context, params.code));
