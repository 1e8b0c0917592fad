import { createInkSet, libraryInkSets } from '@melto/services/house/inkSets';
import { INK_SETS, NEW_INK_SET } from '@/endpoints/conditions';
import { answering, changing } from '@/server/route';

export const GET = answering(INK_SETS, ({ context }) => libraryInkSets(context));

export const POST = changing(NEW_INK_SET, ({ context, body }) => createInkSet(context, body));
