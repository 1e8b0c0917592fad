import { changeColourList, colourListDetail } from '@melto/services/lists/colourLists';
import { CHANGE_COLOUR_LIST, COLOUR_LIST } from '@/endpoints/lists';
import { answering, changing } from '@/server/route';

export const GET = answering(COLOUR_LIST, ({ context, params }) => colourListDetail(context, params.id));

export const PUT = changing(CHANGE_COLOUR_LIST, async ({ context, params, body }) => {
  await changeColourList(context, params.id, body);
  return {};
});
