import { setLogo } from '@melto/services/house/pictures';
import { SET_LOGO } from '@/endpoints/conditions';
import { changing } from '@/server/route';

export const POST = changing(SET_LOGO, ({ context, query, body }) => setLogo(context, query.name, body));
