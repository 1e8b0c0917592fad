import { fileText } from '@melto/services/kernel/fileText';
import { colourLists, takeColourList } from '@melto/services/lists/colourLists';
import { COLOUR_LISTS, TAKE_COLOUR_LIST } from '@/endpoints/lists';
import { answering, changing } from '@/server/route';

export const GET = answering(COLOUR_LISTS, ({ context }) => colourLists(context));

export const POST = changing(TAKE_COLOUR_LIST, ({ context, query: { name, file, versionOf }, body }) =>
  takeColourList(context, { name, versionOf }, { name: file, text: fileText(body) }),
);
