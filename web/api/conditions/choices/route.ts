import { conditionChoices } from '@melto/services/house/newCondition';
import { CONDITION_CHOICES } from '@/endpoints/conditions';
import { answering } from '@/server/route';

export const GET = answering(CONDITION_CHOICES, ({ context }) => conditionChoices(context));
