import { lightOfKey } from '@melto/core/light/standardLights';
import { measuredIlluminant } from '@melto/core/spectral/illuminant';
import type { Illuminant } from '@melto/core/spectral/illuminant';
import type { ViewingLight } from '@melto/services/light/viewingLights';

/** A light of the library, for computing. */
export const illuminantOf = ({
  key,
  name,
  grid,
  power,
}: Pick<ViewingLight, 'key' | 'name' | 'grid' | 'power'>): Illuminant =>
  lightOfKey(key) ?? measuredIlluminant(name, grid, power);
