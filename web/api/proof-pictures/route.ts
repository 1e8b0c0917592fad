import { pictureValues } from '@melto/services/proof/pictureValues';
import { PICTURE_VALUES } from '@/endpoints/proof';
import { workingOut } from '@/server/route';

export const POST = workingOut(PICTURE_VALUES, ({ query, body }) => pictureValues(body, query.side));
