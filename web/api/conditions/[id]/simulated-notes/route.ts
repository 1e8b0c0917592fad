import { simulatedNotes } from '@melto/services/simulated/simulatedNotes';
import { SIMULATED_NOTES } from '@/endpoints/eye';
import { answering } from '@/server/route';

export const GET = answering(SIMULATED_NOTES, ({ context, params, query: { listId, light, wrong } }) =>
  simulatedNotes(context, params.id, listId, light, wrong),
);
