import { colourList } from '@melto/services/profile/colourLists';
import { fileText } from '@melto/services/kernel/fileText';
import { COLOUR_LIST } from '@/endpoints/profile';
import { workingOut } from '@/server/route';

export const dynamic = 'force-dynamic';

export const POST = workingOut(COLOUR_LIST, async ({ context, body }) => colourList(context, fileText(body)));
