import { house } from '@melto/services/house/house';
import { HOUSE } from '@/endpoints/house';
import { answering } from '@/server/route';

export const dynamic = 'force-dynamic';

export const GET = answering(HOUSE, ({ context }) => house(context));
