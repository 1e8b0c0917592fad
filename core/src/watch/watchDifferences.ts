import { deltaE2000 } from '../colour/deltaE2000.ts';
import { largest, mean } from '../numerics/statistics.ts';
import { WATCH_PATCHES, watchLab } from './watchFigures.ts';

/** ΔE00 of a check to the zero reading. */
export interface WatchDifferences {
  readonly mean: number;
  readonly largest: number;
  /** By group: paper, solids, midtones, greys, overprints. */
  readonly groups: readonly { readonly group: string; readonly mean: number; readonly largest: number }[];
}

const GROUPS: readonly (readonly [string, (name: string) => boolean])[] = [
  ['paper', (name) => name === 'paper'],
  ['solids', (name) => /^[CMYK] 100$/.test(name)],
  ['midtones', (name) => /^[CMYK] 50$/.test(name)],
  ['greys', (name) => name.startsWith('grey')],
  ['overprints', (name) => /^[CMY]{2} 100$/.test(name)],
];

export function watchDifferences(figures: Float64Array, zero: Float64Array): WatchDifferences {
  const all = WATCH_PATCHES.map((_, patch) => deltaE2000(watchLab(zero, patch), watchLab(figures, patch)));
  return {
    mean: mean(all),
    largest: largest(all),
    groups: GROUPS.map(([group, belongs]) => {
      const own = all.filter((_, patch) => belongs(WATCH_PATCHES[patch].name));
      return { group, mean: mean(own), largest: largest(own) };
    }),
  };
}
