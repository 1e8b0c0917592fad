import { inkProcess } from '@melto/core/device/process';
import type { Process } from '@melto/core/device/process';
import { createRandom } from '@melto/core/numerics/random';
import { tableIlluminant } from '@melto/core/spectral/illuminant';
import { GRID_380_730_10 } from '@melto/core/spectral/spectralGrid';
import { spectraToXyz } from '@melto/core/spectral/spectrumToXyz';
import { createXyzWeights } from '@melto/core/spectral/xyzWeights';
import { CURLEW, CURLEW_MODES } from '@melto/simulator/data/curlew';
import { TERN, TERN_MODES } from '@melto/simulator/data/tern';
import { SIMULATED_STOCKS } from '@melto/simulator/data/stocks';
import { meanInkState, SpectralPrinter } from '@melto/simulator/spectralPrinter';
import type { InkPrinterData } from '@melto/simulator/inkPrinter';

const BANDS = GRID_380_730_10.count;
const weights = createXyzWeights(GRID_380_730_10, tableIlluminant('D50'), '2deg');

/** A device of many inks whose truth is known: XYZ of device rows. */
export interface ManyInkDevice {
  readonly name: string;
  readonly process: Process;
  readonly totalInk: number;
  readonly truth: (device: ArrayLike<number>) => Float64Array;
}

interface Absorption {
  readonly bands: readonly (readonly [centre: number, width: number, share: number])[];
  readonly floor: number;
}

const ABSORPTION: Readonly<Record<string, Absorption>> = {
  C: { bands: [[642, 72, 1]], floor: 0.08 },
  M: { bands: [[541, 46, 1]], floor: 0.07 },
  Y: { bands: [[432, 44, 1]], floor: 0.02 },
  K: { bands: [], floor: 1 },
  O: {
    bands: [
      [440, 60, 1],
      [515, 30, 0.8],
    ],
    floor: 0.03,
  },
  R: {
    bands: [
      [440, 60, 0.9],
      [540, 38, 1],
    ],
    floor: 0.04,
  },
  G: {
    bands: [
      [655, 60, 1],
      [428, 36, 0.85],
    ],
    floor: 0.06,
  },
  V: {
    bands: [
      [585, 55, 1],
      [410, 20, 0.2],
    ],
    floor: 0.06,
  },
};

interface Character {
  readonly name: string;
  readonly inks: string;
  readonly density: number;
  readonly gain: number;
  readonly n: number;
  readonly totalInk: number;
  /** Inks lie in one layer and their densities add, without dots: no mixture of solids. */
  readonly layered?: boolean;
}

const CHARACTERS: readonly Character[] = [
  { name: 'six, proof-like', inks: 'CMYKOG', density: 1.5, gain: 0.15, n: 1.8, totalInk: 3 },
  { name: 'seven, pale paper', inks: 'CMYKOGV', density: 1.1, gain: 0.2, n: 2, totalInk: 3 },
  { name: 'eight, layered', inks: 'CMYKOGVR', density: 1.45, gain: 0.1, n: 1, totalInk: 3, layered: true },
];

/** The simulator's devices of many inks, and others that were written by themselves. */
export function manyInkDevices(seed: number): ManyInkDevice[] {
  return [
    simulated('Tern', 'CMYKOG', TERN, TERN_MODES.fine.inkScale, 'quay-proof-200'),
    simulated('Curlew', 'CMYKOGV', CURLEW, CURLEW_MODES['150 lpi'].inkScale, 'marsh-silk-130'),
    ...CHARACTERS.map((own) => written(own, seed)),
  ];
}

function simulated(
  name: string,
  inks: string,
  data: InkPrinterData,
  scale: readonly number[],
  stock: keyof typeof SIMULATED_STOCKS,
): ManyInkDevice {
  const printer = new SpectralPrinter(data, SIMULATED_STOCKS[stock], 'M1', 'printing', meanInkState(data));
  const n = inks.length;
  return {
    name,
    process: inkProcess([...inks]),
    totalInk: 3,
    truth: (device) => {
      const rows = device.length / n;
      const spectra = new Float64Array(rows * BANDS);
      for (let i = 0; i < rows; i++)
        printer.print(
          scale.map((share, c) => share * Math.min(1, Math.max(0, device[n * i + c]))),
          spectra,
          i * BANDS,
        );
      return xyzOf(spectra);
    },
  };
}

function xyzOf(spectra: Float64Array): Float64Array {
  const xyz = new Float64Array((spectra.length / BANDS) * 3);
  spectraToXyz(weights, spectra, xyz);
  return xyz;
}

function written(character: Character, seed: number): ManyInkDevice {
  const random = createRandom(52_000 + 29 * seed + character.inks.length);
  const vary = (size: number): number => 1 + size * random.normal();
  const names = [...character.inks];
  const count = names.length;
  const gains = names.map(() => character.gain * vary(0.12));
  const density = names.map((name) => character.density * (name === 'K' ? 1.25 : 1) * vary(0.05));
  const shapes = names.map((name) => {
    const { bands, floor } = ABSORPTION[name];
    const shift = 4 * random.normal();
    const wider = vary(0.06);
    const base = floor * vary(0.15);
    return Float64Array.from({ length: BANDS }, (_, band) => {
      const nm = 380 + 10 * band;
      let most = 0;
      for (const [centre, width, share] of bands)
        most = Math.max(most, share * Math.exp(-0.5 * ((nm - centre - shift) / (width * wider)) ** 2));
      return base + (1 - base) * most;
    });
  });
  const white = (nm: number): number =>
    (character.name.includes('pale') ? 0.72 : 0.84) + 0.05 * Math.min(1, Math.max(0, nm - 400) / 120);
  const areasOf = (device: ArrayLike<number>, row: number, area: Float64Array): void => {
    for (let ink = 0; ink < count; ink++) {
      const value = Math.min(1, Math.max(0, device[count * row + ink]));
      area[ink] = Math.min(1, value + 4 * gains[ink] * value * (1 - value));
    }
  };
  const primaries = character.layered
    ? []
    : Array.from({ length: 1 << count }, (_, bits) =>
        Float64Array.from({ length: BANDS }, (_, band) => {
          let total = 0;
          for (let ink = 0; ink < count; ink++)
            if ((bits >> ink) & 1) total += density[ink] * shapes[ink][band] * (total > 0 ? 0.93 : 1);
          return (0.004 + (white(380 + 10 * band) - 0.004) * 10 ** -total) ** (1 / character.n);
        }),
      );
  const area = new Float64Array(count);
  return {
    name: character.name,
    process: inkProcess(names),
    totalInk: character.totalInk,
    truth: (device) => {
      const rows = device.length / count;
      const spectra = new Float64Array(rows * BANDS);
      const share = new Float64Array(1 << count);
      for (let row = 0; row < rows; row++) {
        areasOf(device, row, area);
        const at = row * BANDS;
        if (character.layered) {
          for (let band = 0; band < BANDS; band++) {
            let total = 0;
            // Each layer holds off a little of the next.
            for (let ink = 0; ink < count; ink++)
              total += density[ink] * area[ink] * shapes[ink][band] * (1 - 0.05 * Math.min(1, total));
            const limit = 2.1;
            const seen = limit * (1 - Math.exp(-total / limit));
            spectra[at + band] = 0.004 + (white(380 + 10 * band) - 0.004) * 10 ** -seen;
          }
          continue;
        }
        share[0] = 1;
        let filled = 1;
        for (let ink = 0; ink < count; ink++, filled <<= 1)
          for (let bits = 0; bits < filled; bits++) {
            share[bits + filled] = share[bits] * area[ink];
            share[bits] *= 1 - area[ink];
          }
        for (let bits = 0; bits < filled; bits++)
          if (share[bits] !== 0)
            for (let band = 0; band < BANDS; band++)
              spectra[at + band] += share[bits] * primaries[bits][band];
        for (let band = 0; band < BANDS; band++) spectra[at + band] **= character.n;
      }
      return xyzOf(spectra);
    },
  };
}
