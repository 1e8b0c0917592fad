import { createRandom } from '@melto/core/numerics/random';
import { tableIlluminant } from '@melto/core/spectral/illuminant';
import { GRID_380_730_10 } from '@melto/core/spectral/spectralGrid';
import { spectraToXyz } from '@melto/core/spectral/spectrumToXyz';
import { createXyzWeights } from '@melto/core/spectral/xyzWeights';
import type { CmykCondition } from './cmykConditions.ts';

const BANDS = GRID_380_730_10.count;
const weights = createXyzWeights(GRID_380_730_10, tableIlluminant('D50'), '2deg');

interface Character {
  readonly name: string;
  /** Reflectance of the paper at 400 and 700 nm. */
  readonly paper: readonly [number, number];
  /** Largest density of C, M, Y, K. */
  readonly density: readonly [number, number, number, number];
  /** Gain at the midtone. */
  readonly gain: number;
  /** Yule-Nielsen factor. */
  readonly n: number;
  /** Share of chroma that a solid loses, and the ink value from which it falls. */
  readonly fall: { readonly share: number; readonly from: number };
}

const CHARACTERS: readonly Character[] = [
  {
    name: 'offset-like',
    paper: [0.86, 0.9],
    density: [1.5, 1.45, 1.4, 1.75],
    gain: 0.14,
    n: 1.7,
    fall: { share: 0, from: 1 },
  },
  {
    name: 'newspaper',
    paper: [0.5, 0.66],
    density: [0.85, 0.85, 0.8, 1],
    gain: 0.25,
    n: 2,
    fall: { share: 0, from: 1 },
  },
  {
    name: 'dark inkjet',
    paper: [0.88, 0.92],
    density: [2.3, 2.2, 2, 2.5],
    gain: 0.3,
    n: 1.5,
    fall: { share: 0, from: 1 },
  },
  {
    name: 'turns after 90 %',
    paper: [0.85, 0.9],
    density: [1.7, 1.6, 1.5, 1.8],
    gain: 0.18,
    n: 1.7,
    fall: { share: 0.03, from: 0.9 },
  },
  {
    name: 'turns after 80 %',
    paper: [0.85, 0.9],
    density: [1.7, 1.6, 1.5, 1.8],
    gain: 0.18,
    n: 1.7,
    fall: { share: 0.08, from: 0.8 },
  },
];
/** Centre and width of the inks' absorption, nm, and what they absorb elsewhere. */
const ABSORPTION = [
  { centre: 640, width: 75, floor: 0.08 },
  { centre: 540, width: 48, floor: 0.07 },
  { centre: 435, width: 45, floor: 0.02 },
] as const;

/** Devices of other character than the simulator's, written by themselves; each seed another one of its kind. */
export function otherDevices(seed: number): CmykCondition[] {
  return CHARACTERS.map((character) => ({
    name: character.name,
    truth: printerOf(character, seed),
  }));
}

function printerOf(character: Character, seed: number): CmykCondition['truth'] {
  const random = createRandom(31_000 + 17 * seed);
  const vary = (size: number): number => 1 + size * random.normal();
  const density = character.density.map((own) => own * vary(0.04));
  const gains = [0, 1, 2, 3].map(() => character.gain * vary(0.1));
  const falls = [0, 1, 2, 3].map((ink) => (ink === 3 ? 0 : character.fall.share * Math.abs(vary(0.3))));
  const shapes = ABSORPTION.map(({ centre, width, floor }) => ({
    centre: centre + 4 * random.normal(),
    width: width * vary(0.06),
    floor: floor * vary(0.15),
  }));
  const { n, paper, fall } = character;
  /** Reflectance to 1/n of paper and of each of the sixteen primaries. */
  const primaries = Array.from({ length: 16 }, (_, bits) =>
    Float64Array.from({ length: BANDS }, (_, band) => {
      const nm = 380 + 10 * band;
      let total = 0;
      for (let ink = 0; ink < 4; ink++) {
        if (((bits >> ink) & 1) === 0) continue;
        const { centre, width, floor } = shapes[ink] ?? { centre: 0, width: 1, floor: 1 };
        const absorbed = ink === 3 ? 1 : floor + (1 - floor) * Math.exp(-0.5 * ((nm - centre) / width) ** 2);
        // Inks on inks take less.
        total += density[ink] * absorbed * (total > 0 ? 0.92 : 1);
      }
      const white = paper[0] + (paper[1] - paper[0]) * Math.min(1, Math.max(0, nm - 400) / 120);
      return (0.004 + (white - 0.004) * 10 ** -total) ** (1 / n);
    }),
  );
  const turned = (value: number): number => Math.max(0, (value - fall.from) / Math.max(1e-6, 1 - fall.from));
  return (cmyk) => {
    const rows = cmyk.length / 4;
    const spectra = new Float64Array(rows * BANDS);
    const area = [0, 0, 0, 0];
    for (let row = 0; row < rows; row++) {
      let bronze = 0;
      for (let ink = 0; ink < 4; ink++) {
        const value = Math.min(1, Math.max(0, cmyk[4 * row + ink]));
        area[ink] = Math.min(1, value + 4 * gains[ink] * value * (1 - value));
        bronze += falls[ink] * turned(value) ** 1.5;
      }
      for (let bits = 0; bits < 16; bits++) {
        let share = 1;
        for (let ink = 0; ink < 4; ink++) share *= (bits >> ink) & 1 ? area[ink] : 1 - area[ink];
        if (share === 0) continue;
        for (let band = 0; band < BANDS; band++) spectra[row * BANDS + band] += share * primaries[bits][band];
      }
      // What a full layer throws back at its surface greys the colour.
      const veil = Math.min(0.5, bronze);
      for (let band = 0; band < BANDS; band++) {
        const at = row * BANDS + band;
        spectra[at] = spectra[at] ** n * (1 - veil) + 0.18 * veil;
      }
    }
    const xyz = new Float64Array(rows * 3);
    spectraToXyz(weights, spectra, xyz);
    return xyz;
  };
}
