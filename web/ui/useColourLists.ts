'use client';

import { useQuery } from '@tanstack/react-query';
import { COLOUR_LISTS } from '@/endpoints/lists';
import { ask } from './api';

/** The colour lists of the library, the latest version of each. */
export function useColourLists() {
  const { data = [] } = useQuery({
    queryKey: ['colour lists'],
    queryFn: () => ask(COLOUR_LISTS, {}),
    staleTime: 60_000,
  });
  return data;
}
