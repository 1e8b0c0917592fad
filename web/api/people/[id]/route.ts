import { changePerson } from '@melto/services/people/people';
import { CHANGE_PERSON } from '@/endpoints/people';
import { changing } from '@/server/route';

export const PUT = changing(CHANGE_PERSON, async ({ context, params, body }) => {
  await changePerson(context, params.id, body);
  return {};
});
