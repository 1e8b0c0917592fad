import { addPicture } from '@melto/services/house/pictures';
import { ADD_PICTURE } from '@/endpoints/conditions';
import { changing } from '@/server/route';

export const POST = changing(ADD_PICTURE, ({ context, params, query, body }) =>
  addPicture(context, params.id, query.name, body),
);
