import { predictedConformity } from '@melto/services/wedges/predictedWedge';
import { PREDICTED_CONFORMITY } from '@/endpoints/conformity';
import { answering } from '@/server/route';

export const GET = answering(PREDICTED_CONFORMITY, ({ context, params, query }) => {
  const { kind, substrateCorrected, ...choice } = query;
  return predictedConformity(context, params.id, kind, {
    ...choice,
    substrateCorrected: substrateCorrected === 'yes',
  });
});
