import { makePerson, people } from '@melto/services/people/people';
import { MAKE_PERSON, PEOPLE } from '@/endpoints/people';
import { answering, telling } from '@/server/route';

export const GET = answering(PEOPLE, ({ context }) => people(context));
export const POST = telling(MAKE_PERSON, async ({ context, body }) => ({
  answer: await makePerson(context, body),
}));
