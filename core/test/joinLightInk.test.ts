import { describe, expect, it } from 'vitest';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzRowsToLab } from '@melto/core/colour/xyzToLab';
import { createRandom } from '@melto/core/numerics/random';
import { tableIlluminant } from '@melto/core/spectral/illuminant';
import { GRID_380_730_10 } from '@melto/core/spectral/spectralGrid';
import { spectraToXyz } from '@melto/core/spectral/spectrumToXyz';
import { createXyzWeights } from '@melto/core/spectral/xyzWeights';
import { joinLightInk } from '@melto/core/tone/joinLightInk';
import { spotColourToneValue } from '@melto/core/tone/sctv';
import { evaluateToneCurve } from '@melto/core/tone/toneCurve';
import { TERN } from '@melto/simulator/data/tern';
import { SIMULATED_STOCKS } from '@melto/simulator/data/stocks';
import { addReadingNoise } from '@melto/simulator/readingNoise';
import { meanInkState, SpectralPrinter } from '@melto/simulator/spectralPrinter';
import type { InkPrinterData } from '@melto/simulator/inkPrinter';

const weights = createXyzWeights(GRID_380_730_10, tableIlluminant('D50'), '2deg');

/** A printer of a light and a full ink of one colour, of Tern's; the light one at a share of its density. */
function printerOf(ink: string, share: number): SpectralPrinter {
  const shape = TERN.inks[ink];
  const light = {
    ...shape,
    bands: shape.bands.map(([peak, width, size]) => [peak, width, share * size] as const),
  };
  const data: InkPrinterData = {
    ...TERN,
    inks: { light, full: shape },
    stocks: { 'quay-proof-200': { gain: [0.12, 0.12], dmax: 2.25, strength: [1, 1] } },
  };
  return new SpectralPrinter(data, SIMULATED_STOCKS['quay-proof-200'], 'M1', 'printing', meanInkState(data));
}

function printed(
  printer: SpectralPrinter,
  rows: readonly (readonly [number, number])[],
  noise = 0,
): Float64Array {
  const random = createRandom(5);
  const spectra = new Float64Array(rows.length * 36);
  rows.forEach((row, i) => {
    printer.print(row, spectra, 36 * i);
    if (noise > 0) addReadingNoise(spectra, 36 * i, noise, random);
  });
  const xyz = new Float64Array(rows.length * 3);
  spectraToXyz(weights, spectra, xyz);
  return xyz;
}

/** Ramps of both, and what they print together. */
const CHART: readonly (readonly [number, number])[] = [
  ...Array.from({ length: 13 }, (_, i) => [i / 12, 0] as const),
  ...Array.from({ length: 13 }, (_, i) => [0, i / 12] as const),
  ...[0.25, 0.5, 0.75, 1].flatMap((l) => [0.1, 0.25, 0.5, 0.75, 1].map((f) => [l, f] as const)),
];

const lightness = (xyz: Float64Array): number[] => {
  const lab = new Float64Array(xyz.length);
  xyzRowsToLab(xyz, WHITE_D50_MEASURED, lab);
  return Array.from({ length: xyz.length / 3 }, (_, i) => lab[3 * i]);
};

/** Largest second difference of a ramp. */
const bend = (l: readonly number[]): number =>
  Math.max(...l.slice(1, -1).map((value, i) => Math.abs(l[i] - 2 * value + l[i + 2])));

describe('a light ink and its full ink', () => {
  it.each([
    ['C', 0.3],
    ['M', 0.35],
    ['K', 0.4],
    ['K', 0.2],
  ])('%s at %f are joined without a step or a turn', (ink, share) => {
    const printer = printerOf(ink, share);
    const join = joinLightInk(Float64Array.from(CHART.flat()), printed(printer, CHART, 0.1));
    const tones = Array.from({ length: 65 }, (_, i) => i / 64);
    const rows = tones.map(
      (t) => [evaluateToneCurve(join.light, t), evaluateToneCurve(join.full, t)] as const,
    );
    const xyz = printed(printer, rows);
    const l = lightness(xyz);
    for (let i = 1; i < l.length; i++) expect(l[i]).toBeLessThan(l[i - 1]);
    // Even by SCTV, and no rougher than the full ink by itself made even.
    const solid = xyz.subarray(xyz.length - 3);
    tones.forEach((t, i) =>
      expect(spotColourToneValue(xyz.subarray(3 * i, 3 * i + 3), xyz.subarray(0, 3), solid)).toBeCloseTo(
        t,
        1,
      ),
    );
    const alone = Array.from({ length: 257 }, (_, i) => [0, i / 256] as const);
    const own = printed(printer, alone);
    const values = alone.map((_, i) =>
      spotColourToneValue(own.subarray(3 * i, 3 * i + 3), own.subarray(0, 3), own.subarray(768)),
    );
    const even = tones.map((t) => {
      const at = Math.max(
        1,
        values.findIndex((value) => value >= t - 1e-9),
      );
      const part = (t - values[at - 1]) / (values[at] - values[at - 1]);
      return [0, (at - 1 + part) / 256] as const;
    });
    expect(bend(l)).toBeLessThan(bend(lightness(printed(printer, even))) + 0.25);
    // In the lights there is no full ink; in the solid no light one.
    expect(join.full[16]).toBe(0);
    expect(join.begins).toBeGreaterThan(0.05);
    expect([join.light[256], join.full[256]].map((value) => Math.round(value * 100))).toEqual([0, 100]);
  });

  it('keep a limit of the light one', () => {
    const printer = printerOf('C', 0.3);
    const xyz = printed(printer, CHART);
    const free = joinLightInk(Float64Array.from(CHART.flat()), xyz);
    const held = joinLightInk(Float64Array.from(CHART.flat()), xyz, 0.6);
    expect(free.mostLight.amount).toBeGreaterThan(0.6);
    expect(held.mostLight.amount).toBeLessThanOrEqual(0.6);
    expect(held.begins).toBeLessThan(free.begins);
  });

  it('are refused where too little was read, or the light one is the stronger', () => {
    const printer = printerOf('C', 0.3);
    const without = CHART.filter(([l, f]) => l === 0 || f === 0);
    expect(() => joinLightInk(Float64Array.from(without.flat()), printed(printer, without))).toThrow(
      'five overprints',
    );
    const turned = CHART.map(([l, f]) => [f, l]).flat();
    expect(() => joinLightInk(Float64Array.from(turned), printed(printer, CHART))).toThrow('other way round');
  });
});
