import { colourList } from '@melto/services/profile/colourLists';
import { COLOUR_LIST } from '@/endpoints/profile';
import { workingOut } from '@/server/route';

export const dynamic = 'force-dynamic';

export const POST = workingOut(COLOUR_LIST, async ({ body }) =>
  colourList(Buffer.from(body).toString('utf8')),
);
