import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import type { RunView } from '@melto/services/press/runView';
import { RUN } from '@/endpoints/runs';
import { ask } from '@/ui/api';

/** A run, live: a stream tells that something is new, and it is asked for then. */
export function useRun(initial: RunView): RunView {
  const { id } = initial;
  const queries = useQueryClient();
  const { data } = useQuery({
    queryKey: ['run', id],
    queryFn: () => ask(RUN, { params: { id } }),
    initialData: initial,
    staleTime: Infinity,
  });
  useEffect(() => {
    const source = new EventSource(`/api/runs/${id}/stream`);
    source.onmessage = (event: MessageEvent<string>) => {
      const known = queries.getQueryData<RunView>(['run', id])?.edition;
      if (Number(event.data) !== known) void queries.invalidateQueries({ queryKey: ['run', id] });
    };
    return () => source.close();
  }, [id, queries]);
  return data;
}
