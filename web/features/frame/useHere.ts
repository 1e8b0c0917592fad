'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';

const KEY = ['here'];

/** Tells the breadcrumb which condition a page outside `/conditions` belongs to. */
export function useTellHere(conditionId: number): void {
  const queries = useQueryClient();
  useEffect(() => {
    queries.setQueryData(KEY, conditionId);
    return () => {
      queries.setQueryData(KEY, null);
    };
  }, [queries, conditionId]);
}

export function useHere(): number | undefined {
  const { data } = useQuery<number | null>({
    queryKey: KEY,
    queryFn: () => null,
    enabled: false,
    initialData: null,
    staleTime: Infinity,
  });
  return data ?? undefined;
}
