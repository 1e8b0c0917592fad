import { keepColourList } from '@melto/services/lists/colourLists';
import { KEEP_COLOURS } from '@/endpoints/lists';
import { changing } from '@/server/route';

export const POST = changing(KEEP_COLOURS, ({ context, body: { name, versionOf, colours } }) =>
  keepColourList(context, { name, versionOf }, 'Measured or typed', colours),
);
