import { machineKeys, makeMachineKey } from '@melto/services/people/machineKeys';
import { MACHINE_KEYS, MAKE_MACHINE_KEY } from '@/endpoints/people';
import { answering, telling } from '@/server/route';

export const GET = answering(MACHINE_KEYS, ({ context }) => machineKeys(context));
export const POST = telling(MAKE_MACHINE_KEY, async ({ context, caller, body }) => ({
  answer: await makeMachineKey(context, caller?.role ?? 'viewer', body),
}));
