import { ROUTES } from '@/api/routes';
import { dispatcherOf } from '@/server/dispatch';

export const dynamic = 'force-dynamic';

const dispatch = dispatcherOf(ROUTES);

export {
  dispatch as DELETE,
  dispatch as GET,
  dispatch as HEAD,
  dispatch as PATCH,
  dispatch as POST,
  dispatch as PUT,
};
