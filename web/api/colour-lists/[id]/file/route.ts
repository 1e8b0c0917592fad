import { colourListFile } from '@melto/services/lists/colourLists';
import { COLOUR_LIST_FILE } from '@/endpoints/lists';
import { handingOut } from '@/server/route';

export const GET = handingOut(COLOUR_LIST_FILE, ({ context, params }) => colourListFile(context, params.id));
