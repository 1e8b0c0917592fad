import { letChange, putRight } from '@melto/services/simulated/simulatedChanges';
import { SIMULATED_CHANGES } from '@/endpoints/conditions';
import { changing } from '@/server/route';

export const PUT = changing(SIMULATED_CHANGES, async ({ context, params, body: { kind, ink = 0 } }) => {
  if (kind !== undefined) return letChange(context, params.id, kind, ink);
  await putRight(context, params.id);
  return [];
});
