import { removeColourList } from '@melto/services/lists/colourLists';
import { REMOVE_COLOUR_LIST } from '@/endpoints/lists';
import { changing } from '@/server/route';

export const PUT = changing(REMOVE_COLOUR_LIST, async ({ context, params, body }) => {
  await removeColourList(context, params.id, body.removed);
  return {};
});
