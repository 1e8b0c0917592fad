import type { DeskState } from '@melto/services/reading/desk';
import type { Connected } from '@/features/bridge/BridgeContext';

/** Connected instruments that can read a sheet: simulated ones only what a simulated device printed. */
export function readableBy(
  { simulated }: Pick<DeskState, 'simulated'>,
  instruments: readonly Connected[],
): readonly Connected[] {
  return instruments.filter(({ info }) => info.simulated !== true || simulated);
}
