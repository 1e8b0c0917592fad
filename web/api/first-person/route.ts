import { claimHouse } from '@melto/services/people/signIn';
import { Problem } from '@melto/services/kernel/problem';
import { FIRST_PERSON } from '@/endpoints/people';
import { atOwnMachine } from '@/server/caller';
import { coming } from '@/server/coming';
import { telling } from '@/server/route';

export const POST = telling(FIRST_PERSON, async ({ context, body }, { headers }) => {
  // Whoever comes by from elsewhere must not take a house that nobody has yet.
  if (!atOwnMachine(headers))
    throw new Problem(
      'forbidden',
      'The first person is made at the machine itself.',
      'Open http://localhost with the port of Melto on the machine that serves it.',
    );
  return { answer: {}, session: { kept: await claimHouse(context, coming(body, headers)) } };
});
