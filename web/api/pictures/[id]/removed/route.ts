import { removePicture } from '@melto/services/house/pictures';
import { REMOVE_PICTURE } from '@/endpoints/conditions';
import { changing } from '@/server/route';

export const PUT = changing(REMOVE_PICTURE, async ({ context, params, body }) => {
  await removePicture(context, params.id, body.removed);
  return {};
});
