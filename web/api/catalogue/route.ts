import { catalogue } from '@melto/services/overview/catalogue';
import { CATALOGUE } from '@/endpoints/profile';
import { answering } from '@/server/route';

export const GET = answering(CATALOGUE, ({ context }) => catalogue(context));
