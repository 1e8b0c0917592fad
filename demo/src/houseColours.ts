import type { ListedColour } from '@melto/core/refine/namedColour';
import { GRID_380_730_10, gridWavelengths } from '@melto/core/spectral/spectralGrid';
import { spectrumLab } from '@melto/core/spectral/spectrumLab';
import type { Context } from '@melto/services/kernel/context';
import { colourLists, keepColourList } from '@melto/services/lists/colourLists';

const NAME = 'Saltmarsh house colours';

/** Bands of a paint that is made up: where reflectance rises or falls, how steeply, and by how much. */
type Step = readonly [atNm: number, overNm: number, by: number];

/** Paints of the house's shop front: reflectance at 380 nm, and what changes on the way to 730 nm. */
const PAINTS: readonly (readonly [name: string, least: number, steps: readonly Step[]])[] = [
  [
    'Seed red',
    0.05,
    [
      [600, 14, 0.55],
      [430, 20, 0.01],
    ],
  ],
  [
    'Buoy orange',
    0.04,
    [
      [565, 12, 0.62],
      [640, 30, 0.08],
    ],
  ],
  [
    'Gorse',
    0.05,
    [
      [505, 12, 0.62],
      [580, 40, 0.14],
    ],
  ],
  [
    'Samphire',
    0.05,
    [
      [500, 16, 0.22],
      [575, 18, -0.13],
      [700, 12, 0.3],
    ],
  ],
  [
    'Marsh green',
    0.05,
    [
      [480, 18, 0.17],
      [560, 22, -0.15],
      [705, 12, 0.22],
    ],
  ],
  [
    'Tide blue',
    0.09,
    [
      [430, 20, 0.22],
      [500, 22, -0.25],
      [700, 14, 0.1],
    ],
  ],
  [
    'Dusk violet',
    0.1,
    [
      [420, 18, 0.12],
      [480, 22, -0.16],
      [640, 24, 0.18],
    ],
  ],
  [
    'Heron slate',
    0.18,
    [
      [470, 40, 0.03],
      [560, 50, -0.05],
    ],
  ],
  [
    'Oyster',
    0.52,
    [
      [450, 40, 0.14],
      [600, 60, 0.06],
    ],
  ],
  [
    'Kelp brown',
    0.05,
    [
      [560, 40, 0.09],
      [650, 40, 0.1],
    ],
  ],
  ['Quay grey', 0.33, [[500, 80, 0.01]]],
  [
    'Lantern yellow',
    0.08,
    [
      [490, 14, 0.66],
      [560, 40, 0.1],
    ],
  ],
];

/** The colours of the sample house, once: a list with spectra. */
export async function keepHouseColours(context: Context): Promise<void> {
  if ((await colourLists(context)).some(({ name }) => name === NAME)) return;
  await keepColourList(context, { name: NAME }, 'Painted samples of the shop front, measured', HOUSE_COLOURS);
}

const HOUSE_COLOURS: readonly ListedColour[] = PAINTS.map(([name, least, steps]) => {
  const values = gridWavelengths(GRID_380_730_10).map((nm) =>
    Number(
      steps.reduce((sum, [at, over, by]) => sum + by / (1 + Math.exp((at - nm) / over)), least).toFixed(4),
    ),
  );
  return {
    name,
    lab: spectrumLab(GRID_380_730_10, values),
    spectrum: { grid: GRID_380_730_10, values },
  };
});
