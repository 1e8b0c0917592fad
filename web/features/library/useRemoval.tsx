'use client';

import { REMOVE_AIM_SET, REMOVE_TOLERANCE_SET } from '@/endpoints/conformity';
import { send } from '@/ui/api';
import { usePutAway } from './usePutAway';

/** Takes a set of the library off its list, with ten seconds to take it back. */
export function useRemoval(
  kind: 'aim-sets' | 'tolerance-sets',
  onDone: () => void = () => undefined,
): (id: number, name: string) => Promise<void> {
  const put = usePutAway();
  return (id, name) =>
    put(async (removed) => {
      await send(kind === 'aim-sets' ? REMOVE_AIM_SET : REMOVE_TOLERANCE_SET, {
        params: { id },
        body: { removed },
      });
      onDone();
    }, `${name} is off the list; checks that used it keep it.`);
}
