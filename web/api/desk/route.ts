import { deskPeople, makeDesk } from '@melto/services/people/desks';
import { DESK_STATE, MAKE_DESK } from '@/endpoints/people';
import { ownSession } from '@/server/ownSession';
import { answering, telling } from '@/server/route';

export const GET = answering(DESK_STATE, async ({ context, caller }) => ({
  name: caller?.desk?.name ?? null,
  taken: caller?.desk?.taken ?? false,
  people: caller?.desk === undefined ? [] : await deskPeople(context),
}));

export const POST = telling(MAKE_DESK, async ({ context, caller, body }) => {
  await makeDesk(context, ownSession(caller), body.name);
  return { answer: {} };
});
