import { colourList } from '@melto/services/profile/colourLists';
import { COLOUR_LIST } from '@/endpoints/profile';
import { workingOut } from '@/server/route';

export const dynamic = 'force-dynamic';

export const POST = workingOut(COLOUR_LIST, async ({ context, body }) =>
  colourList(context, Buffer.from(body).toString('utf8')),
);
