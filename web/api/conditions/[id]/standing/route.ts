import { standingOf } from '@melto/services/overview/standing';
import { STANDING } from '@/endpoints/conditions';
import { answering } from '@/server/route';

export const GET = answering(STANDING, ({ context, params }) => standingOf(context, params.id));
