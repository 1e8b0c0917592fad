import { conditionView } from '@melto/services/overview/conditionView';
import { CONDITION } from '@/endpoints/conditions';
import { answering } from '@/server/route';

export const GET = answering(CONDITION, ({ context, params }) => conditionView(context, params.id));
