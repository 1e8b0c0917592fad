'use client';

import { HOUSE } from '@/endpoints/house';
import { useQuery } from '@tanstack/react-query';
import { ask } from '@/ui/api';
import { useEffect, useState } from 'react';

/** Rack, instrument and clock, fresh every few seconds. */
export function useHouse() {
  return useQuery({
    queryKey: ['house'],
    queryFn: () => ask(HOUSE, {}),
    refetchInterval: 5000,
  });
}

/** Domain time that ticks; undefined until the server has told its clock. */
export function useDomainNow(): number | undefined {
  const { data } = useHouse();
  const [now, setNow] = useState<number>();
  const offset = data === undefined ? undefined : data.offsetMs;
  useEffect(() => {
    if (offset === undefined) return;
    const tick = (): void => setNow(Date.now() + offset);
    tick();
    const timer = setInterval(tick, 1000);
    return () => clearInterval(timer);
  }, [offset]);
  return now ?? data?.nowMs;
}
