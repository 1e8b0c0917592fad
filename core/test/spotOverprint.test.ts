import { describe, expect, it } from 'vitest';
import { fitInkPhysics } from '@melto/core/characterise/inkPhysics';
import { mergeRepeats } from '@melto/core/characterise/mergeRepeats';
import { makeCmykChart } from '@melto/core/charts/cmykChart';
import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { measuredLabRows } from '@melto/core/colour/measuredLabRows';
import { createRandom } from '@melto/core/numerics/random';
import { summariseErrors } from '@melto/core/numerics/statistics';
import { tableIlluminant } from '@melto/core/spectral/illuminant';
import { GRID_380_730_10, gridWavelengths } from '@melto/core/spectral/spectralGrid';
import { spectraToXyz } from '@melto/core/spectral/spectrumToXyz';
import { createXyzWeights } from '@melto/core/spectral/xyzWeights';
import { fitSpectralMixture, mixtureSpectrum } from '@melto/core/spot/spectralMixture';
import { spotFingerprint, spotOver } from '@melto/core/spot/spotFingerprint';
import { CURLEW } from '@melto/simulator/data/curlew';
import { SIMULATED_STOCKS } from '@melto/simulator/data/stocks';
import { TERN } from '@melto/simulator/data/tern';
import { meanInkState, SpectralPrinter } from '@melto/simulator/spectralPrinter';
import type { InkPrinterData } from '@melto/simulator/inkPrinter';

const BANDS = 36;
const weights = createXyzWeights(GRID_380_730_10, tableIlluminant('D50'), '2deg');
const SPOTS = { O: TERN.inks['O'], G: TERN.inks['G'], V: CURLEW.inks['V'] };

/** Curlew's C, M, Y, K with one more ink printed over them. */
function printerWith(spot: keyof typeof SPOTS): SpectralPrinter {
  const { C, M, Y, K } = CURLEW.inks;
  const five = (values: readonly number[]): number[] => [...values.slice(0, 4), values[4]];
  const data: InkPrinterData = {
    ...CURLEW,
    inks: { C, M, Y, K, S: SPOTS[spot] },
    stocks: Object.fromEntries(
      Object.entries(CURLEW.stocks).map(([id, own]) => [
        id,
        { ...own, gain: five(own.gain), strength: five(own.strength) },
      ]),
    ),
  };
  return new SpectralPrinter(data, SIMULATED_STOCKS['marsh-silk-130'], 'M1', 'printing', meanInkState(data));
}

function printed(printer: SpectralPrinter, rows: readonly (readonly number[])[]): Float64Array {
  const out = new Float64Array(rows.length * BANDS);
  rows.forEach((row, i) => printer.print(row, out, i * BANDS));
  return out;
}

const labOf = (spectra: Float64Array): Float64Array => {
  const xyz = new Float64Array((spectra.length / BANDS) * 3);
  spectraToXyz(weights, spectra, xyz);
  return measuredLabRows(xyz);
};

const TINTS = [0.1, 0.25, 0.5, 0.75, 1];

function fingerprintOf(printer: SpectralPrinter) {
  const one = (row: readonly number[]): Float64Array => printed(printer, [row]);
  return spotFingerprint(
    TINTS.map((tint) => ({ tint, onWhite: one([0, 0, 0, 0, tint]), onBlack: one([0, 0, 0, 1, tint]) })),
    one([0, 0, 0, 0, 0]),
    one([0, 0, 0, 1, 0]),
  );
}

describe('a spot ink over process inks', () => {
  it.each(['O', 'G', 'V'] as const)('%s is foretold from its tints on white and on black', (spot) => {
    const printer = printerWith(spot);
    const { device } = makeCmykChart(300, 4, 3);
    const rows = Array.from({ length: 300 }, (_, i) => [...device.subarray(4 * i, 4 * i + 4), 0]);
    const spectra = printed(printer, rows);
    const xyz = new Float64Array(900);
    spectraToXyz(weights, spectra, xyz);
    const patches = mergeRepeats(device, 4, xyz);
    const physics = fitInkPhysics(patches.device, 4, patches.xyz, patches.counts, {
      bends: 7,
      penalty: 2e-4,
    });
    const mixture = fitSpectralMixture(physics, device, spectra, gridWavelengths(GRID_380_730_10));
    const fingerprint = fingerprintOf(printer);
    const random = createRandom(17);
    const asked = Array.from({ length: 400 }, () => [
      ...[0, 1, 2].map(() => (random.uniform() < 0.3 ? 0 : random.uniform())),
      random.uniform() < 0.5 ? 0 : random.uniform() ** 2,
      0.1 + 0.9 * random.uniform(),
    ]).filter((row) => row.reduce((sum, value) => sum + value, 0) <= 3);
    const foretold = new Float64Array(asked.length * BANDS);
    asked.forEach((row, i) =>
      foretold.set(spotOver(fingerprint, row[4], mixtureSpectrum(mixture, row.slice(0, 4))), i * BANDS),
    );
    const { mean, p95 } = summariseErrors(deltaE2000Rows(labOf(printed(printer, asked)), labOf(foretold)));
    expect(mean).toBeLessThan(2);
    expect(p95).toBeLessThan(4);
  });

  it('is itself on the two grounds it was read on, and nothing at no tint', () => {
    const printer = printerWith('O');
    const fingerprint = fingerprintOf(printer);
    const [white, black] = [
      [0, 0, 0, 0, 0],
      [0, 0, 0, 1, 0],
    ].map((row) => printed(printer, [row]));
    for (const [ground, k] of [
      [white, 0],
      [black, 1],
    ] as const) {
      const over = spotOver(fingerprint, 0.5, ground);
      const read = printed(printer, [[0, 0, 0, k, 0.5]]);
      over.forEach((value, band) => expect(value).toBeCloseTo(read[band], 3));
      expect([...spotOver(fingerprint, 0, ground)]).toEqual([...ground]);
    }
  });

  it('is refused with too few tints, or grounds that are alike', () => {
    const read = (tint: number) => ({ tint, onWhite: [0.5, 0.5], onBlack: [0.2, 0.2] });
    expect(() => spotFingerprint([read(0.5), read(1)], [0.9, 0.9], [0.1, 0.1])).toThrow('three at least');
    expect(() => spotFingerprint([read(0.3), read(0.6), read(0.9)], [0.9, 0.9], [0.1, 0.1])).toThrow(
      'full one',
    );
    expect(() => spotFingerprint([0.3, 0.6, 1].map(read), [0.9, 0.9], [0.71, 0.7])).toThrow('hardly darker');
    expect(spotFingerprint([0.3, 0.6, 1].map(read), [0.9, 0.9], [0.69, 0.69])).toHaveLength(4);
  });
});
