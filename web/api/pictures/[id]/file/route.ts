import { pictureFile } from '@melto/services/house/pictures';
import { PICTURE_FILE_OF } from '@/endpoints/conditions';
import { handingOut } from '@/server/route';

export const GET = handingOut(PICTURE_FILE_OF, ({ context, params }) => pictureFile(context, params.id));
