'use client';

import { useQuery } from '@tanstack/react-query';
import type { JudgedBy } from '@melto/services/conformity/checkChoice';
import { PREDICTED_CONFORMITY } from '@/endpoints/conformity';
import { ask } from '@/ui/api';
import { predictedWords } from './predictedWords';

/** What the profile in force expects of a wedge before it is printed. */
export function PredictedLine({
  conditionId,
  kind,
  choice,
}: {
  conditionId: number;
  kind: 'proof' | 'near-neutral';
  choice: Omit<JudgedBy, 'spots' | 'predicted'>;
}) {
  const { aimSetId, toleranceSetId, substrateCorrected, through } = choice;
  const { data, isFetching } = useQuery({
    queryKey: ['predicted', conditionId, kind, aimSetId, toleranceSetId, substrateCorrected, through],
    queryFn: () =>
      ask(PREDICTED_CONFORMITY, {
        params: { id: conditionId },
        query: {
          ...{ kind, aimSetId, toleranceSetId, through },
          substrateCorrected: substrateCorrected ? 'yes' : 'no',
        },
      }),
    retry: false,
  });
  if (data === undefined || data === null)
    return isFetching ? <p className="quiet small">Working out what to expect…</p> : null;
  return <p className="small">Expected {predictedWords(data)}.</p>;
}
