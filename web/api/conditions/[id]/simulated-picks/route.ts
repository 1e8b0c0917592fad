import { simulatedPicks } from '@melto/services/simulated/simulatedEye';
import { SIMULATED_PICKS } from '@/endpoints/light';
import { answering } from '@/server/route';

export const GET = answering(SIMULATED_PICKS, ({ context, params, query: { light, observer } }) =>
  simulatedPicks(context, params.id, { key: light, observer }),
);
