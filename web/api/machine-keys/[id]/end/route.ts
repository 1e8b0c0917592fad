import { endKey } from '@melto/services/people/machineKeys';
import { END_MACHINE_KEY } from '@/endpoints/people';
import { changing } from '@/server/route';

export const POST = changing(END_MACHINE_KEY, async ({ context, params }) => {
  await endKey(context, params.id);
  return {};
});
