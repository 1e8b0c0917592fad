import { floor } from '@melto/services/overview/floor';
import { FLOOR } from '@/endpoints/house';
import { answering } from '@/server/route';

export const GET = answering(FLOOR, ({ context, query }) => floor(context, query));
