import { profileShelf } from '@melto/services/profile/shelf';
import { SHELF } from '@/endpoints/profile';
import { answering } from '@/server/route';

export const GET = answering(SHELF, ({ context }) => profileShelf(context));
