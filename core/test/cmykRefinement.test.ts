import { CMYK } from '@melto/core/device/process';
import { beforeAll, describe, expect, it } from 'vitest';
import { fitInkModel, fitInks, inkModelLab, inkModelXyz } from '@melto/core/characterise/inkModel';
import type { InkModel } from '@melto/core/characterise/inkModel';
import { inkUncertainty } from '@melto/core/characterise/modelUncertainty';
import { uncertaintyMap } from '@melto/core/characterise/uncertaintyMap';
import { makeCmykChart } from '@melto/core/charts/cmykChart';
import { chooseAddedPatches } from '@melto/core/charts/addedPatches';
import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { labToXyz, xyzRowsToLab } from '@melto/core/colour/xyzToLab';
import { deviceToLab, labToDevice, relativeToAbsoluteLab } from '@melto/core/icc/profileTransform';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { readIcc } from '@melto/core/icc/readIcc';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { gatherRows } from '@melto/core/numerics/gatherRows';
import { createRandom } from '@melto/core/numerics/random';
import { mean, summariseErrors } from '@melto/core/numerics/statistics';
import { buildInkProfile } from '@melto/core/profile/buildInkProfile';
import { pathSmoothness } from '@melto/core/profile/pathSmoothness';
import { refinementPatches, tiePatches } from '@melto/core/refine/refinementPatches';
import { unwrap } from '@melto/core/result';
import { previewGrid, previewSeparation } from '@melto/core/separate/separationPreview';
import { separationFrom, separationOf } from '@melto/core/separate/separation';
import { deviceTruthXyz } from '@melto/simulator/deviceTruth';
import { simulatedDevice } from '@melto/simulator/devices';
import { SIMULATED_STOCKS } from '@melto/simulator/data/stocks';
import { WREN_PRINTER } from '@melto/simulator/inkPrinter';
import { noisyLab } from '@melto/simulator/readingNoise';
import { meanInkState, SpectralPrinter } from '@melto/simulator/spectralPrinter';
import { tableIlluminant } from '@melto/core/spectral/illuminant';
import { GRID_380_730_10 } from '@melto/core/spectral/spectralGrid';
import { spectraToXyz } from '@melto/core/spectral/spectrumToXyz';
import { createXyzWeights } from '@melto/core/spectral/xyzWeights';
import { otherDevices } from '../../bench/otherDevices.ts';

const TOTAL_INK = 3;
const osprey = simulatedDevice('osprey');
const truth = (cmyk: ArrayLike<number>): Float64Array =>
  deviceTruthXyz(osprey, 'lantern-gloss-150', '175 lpi', cmyk);
const random = createRandom(8);
const { device } = makeCmykChart(220, 3, TOTAL_INK);
const xyz = read(device);
let model: InkModel;

function labOf(rows: Float64Array): Float64Array {
  const out = new Float64Array(rows.length);
  xyzRowsToLab(rows, WHITE_D50_MEASURED, out);
  return out;
}

/** A reading with noise of 0.2 ΔE00. */
function read(values: Float64Array, own = truth): Float64Array {
  const lab = labOf(own(values));
  for (let i = 0; i < lab.length; i += 3) lab.set(noisyLab([lab[i], lab[i + 1], lab[i + 2]], 0.2, random), i);
  for (let i = 0; i < lab.length; i += 3)
    lab.set(labToXyz([lab[i], lab[i + 1], lab[i + 2]], WHITE_D50_MEASURED), i);
  return lab;
}

/** Pigment inks without curves, which bleed into each other. */
function uneven(): typeof truth {
  const weights = createXyzWeights(GRID_380_730_10, tableIlluminant('D50'), '2deg');
  const stock = SIMULATED_STOCKS['lantern-gloss-150'];
  const printer = new SpectralPrinter(WREN_PRINTER, stock, 'M1', 'printing', meanInkState(WREN_PRINTER));
  return (cmyk) => {
    const rows = cmyk.length / 4;
    const spectra = new Float64Array(rows * GRID_380_730_10.count);
    for (let i = 0; i < rows; i++)
      printer.print(
        [cmyk[4 * i], cmyk[4 * i + 1], cmyk[4 * i + 2], cmyk[4 * i + 3]],
        spectra,
        GRID_380_730_10.count * i,
      );
    const out = new Float64Array(rows * 3);
    spectraToXyz(weights, spectra, out);
    return out;
  };
}

function inksWithin(count: number, seed: number): Float64Array {
  const draw = createRandom(seed);
  const out: number[] = [];
  while (out.length < 4 * count) {
    const own = [draw.uniform(), draw.uniform(), draw.uniform(), draw.uniform()];
    if (own.reduce((a, b) => a + b, 0) <= TOTAL_INK) out.push(...own);
  }
  return Float64Array.from(out);
}

function forwardError(fitted: InkModel, probes: Float64Array, expected = labOf(truth(probes))): Float64Array {
  const out = new Float64Array((probes.length / 4) * 3);
  inkModelLab(fitted, probes, out);
  return deltaE2000Rows(expected, out);
}

function profileOf(fitted: InkModel, more: Partial<Parameters<typeof buildInkProfile>[1]> = {}): IccProfile {
  const paper = new Float64Array(3);
  inkModelXyz(fitted, [0, 0, 0, 0], paper);
  const { profile } = buildInkProfile(fitted, {
    ...{ version: 4, tableSize: 'small', description: 'test', copyright: '', createdMs: 0 },
    paperXyz: [paper[0], paper[1], paper[2]],
    separation: separationOf('medium', TOTAL_INK),
    ...more,
  });
  return unwrap(readIcc(writeIcc(profile)));
}

beforeAll(() => {
  model = fitInkModel(device, 4, xyz);
});

describe('the uncertainty of a model of inks', () => {
  it('is larger where nothing was read, as its errors are', () => {
    const kept = Array.from({ length: device.length / 4 }, (_, i) => i).filter((i) => {
      const own = device.subarray(4 * i, 4 * i + 4);
      return own[3] < 0.35 || own.every((value) => value < 0.01 || value > 0.99);
    });
    const lights = fitInkModel(gatherRows(device, kept, 4), 4, gatherRows(xyz, kept, 3));
    const probes = inksWithin(800, 21);
    const errors = forwardError(lights, probes);
    const uncertainty = inkUncertainty(lights);
    const expected = errors.map((_, i) => uncertainty.deltaEAt(probes.subarray(4 * i, 4 * i + 4)));
    const black = errors.map((_, i) => probes[4 * i + 3]);
    const where = (values: Float64Array, inside: (k: number) => boolean): number =>
      mean(values.filter((_, i) => inside(black[i])));
    const [dark, light] = [(k: number) => k > 0.5 && k < 0.9, (k: number) => k < 0.3];
    expect(where(errors, dark)).toBeGreaterThan(1.5 * where(errors, light));
    expect(where(expected, dark)).toBeGreaterThan(1.5 * where(expected, light));
    expect(where(expected, light)).toBeGreaterThan(0.4 * where(errors, light));
    expect(where(expected, light)).toBeLessThan(2.5 * where(errors, light));
  });

  it('claims errors as large as they are', () => {
    const probes = inksWithin(1500, 27);
    const errors = forwardError(model, probes);
    const uncertainty = inkUncertainty(model);
    const expected = errors.map((_, i) => uncertainty.deltaEAt(probes.subarray(4 * i, 4 * i + 4)));
    expect(mean(expected) / mean(errors)).toBeGreaterThan(0.7);
    expect(mean(expected) / mean(errors)).toBeLessThan(1.4);
  });

  it('knows where its errors are large', () => {
    // Inks that turn back beyond 80 %: no tone curve and no mixing follows them.
    const own = otherDevices(9).find(({ name }) => name === 'turns after 80 %')?.truth ?? truth;
    const fitted = fitInkModel(device, 4, read(device, own));
    const probes = inksWithin(1500, 28);
    const errors = forwardError(fitted, probes, labOf(own(probes)));
    const uncertainty = inkUncertainty(fitted);
    const expected = errors.map((_, i) => uncertainty.deltaEAt(probes.subarray(4 * i, 4 * i + 4)));
    const order = [...expected.keys()].sort((a, b) => expected[a] - expected[b]);
    const errorOf = (of: number[]): number => mean(of.map((i) => errors[i]));
    expect(errorOf(order.slice(-150))).toBeGreaterThan(2 * errorOf(order.slice(0, 150)));
  });

  it('is drawn as a map whose empty cells are none that print', () => {
    const map = uncertaintyMap(inkUncertainty(model), CMYK, TOTAL_INK);
    expect(map.deltaE).toHaveLength(map.lightness.length * map.columns.length);
    expect(map.deltaE.filter((value) => value !== null).length).toBeGreaterThan(30);
    // Nothing that is printed is lighter than L* 80 and blue-violet at once.
    expect(map.deltaE[4 * map.columns.length + 1 + 10]).toBeNull();
    for (const value of map.deltaE) if (value !== null) expect(value).toBeGreaterThan(0);
  });
});

describe('added patches', () => {
  it('tell more than patches at random, where inks are uneven', () => {
    const own = uneven();
    const fit = (values: Float64Array): InkModel => fitInkModel(values, 4, read(values, own));
    const first = fit(device);
    const probes = inksWithin(1500, 22);
    const expected = labOf(own(probes));
    const off = (fitted: InkModel): number => mean(forwardError(fitted, probes, expected));
    const after = (added: Float64Array): number => off(fit(Float64Array.of(...device, ...added)));
    const uncertainty = inkUncertainty(first);
    const chosen = mean(
      [4, 5].map((seed) =>
        after(
          Float64Array.from(chooseAddedPatches(uncertainty, 4, 100, TOTAL_INK, createRandom(seed)).flat()),
        ),
      ),
    );
    expect(chosen).toBeLessThan(0.9 * off(first));
    expect(chosen).toBeLessThan(mean([23, 24].map((seed) => after(inksWithin(100, seed)))));
  });

  it('keep to the limit, differ from each other, and leave out what is planned already', () => {
    const uncertainty = inkUncertainty(model);
    const first = chooseAddedPatches(uncertainty, 4, 30, 2.2, createRandom(4));
    expect(new Set(first.map(String)).size).toBe(30);
    for (const row of first) expect(row.reduce((a, b) => a + b, 0)).toBeLessThanOrEqual(2.2 + 4 / 255);
    const again = chooseAddedPatches(uncertainty, 4, 1, 2.2, createRandom(4), [first[0]]);
    expect(again[0]).not.toEqual(first[0]);
  });
});

describe('a refinement', () => {
  const wanted = [
    { name: 'Tide blue', device: [0.9, 0.6, 0.05, 0.1] },
    { name: 'Seed red', device: [0.05, 0.85, 0.7, 0] },
    { name: 'Marsh green', device: [0.7, 0.1, 0.8, 0.05] },
  ];

  it('has papers, overprints, its colours as often as asked, and the least sure', () => {
    const { names, device: values } = refinementPatches(
      { wanted, readings: 4, unsure: 20, process: CMYK, totalInk: TOTAL_INK, seed: 2 },
      inkUncertainty(model),
    );
    expect(names).toHaveLength(tiePatches(CMYK) + 12 + 20);
    expect(names.filter((name) => name === 'Seed red')).toHaveLength(4);
    expect(names.filter((name) => name === 'least sure')).toHaveLength(20);
    const at = names.lastIndexOf('Seed red');
    expect([...values.subarray(4 * at, 4 * at + 4)].map((value) => Math.round(255 * value))).toEqual([
      13, 217, 179, 0,
    ]);
  });

  it('makes its colours come out as the model has them, and changes nothing elsewhere', () => {
    const asked = new Float64Array(9);
    const relative = new Float64Array(9);
    const plain = profileOf(model);
    const toLab = unwrap(deviceToLab(plain, 'relative'));
    toLab.apply(Float64Array.from(wanted.flatMap((colour) => colour.device)), relative);
    const anchored = profileOf(model, { anchors: relative });
    const white = [0, 1, 2].map((i) => {
      const tag = anchored.tags.get('wtpt');
      return tag?.type === 'XYZ' ? tag.values[0][i] : NaN;
    }) as [number, number, number];
    for (let i = 0; i < 9; i += 3)
      asked.set(relativeToAbsoluteLab([relative[i], relative[i + 1], relative[i + 2]], white), i);
    const loop = (profile: IccProfile): number => {
      const inks = new Float64Array(12);
      const printed = new Float64Array(9);
      unwrap(labToDevice(profile, 'absolute')).apply(asked, inks);
      inkModelLab(model, inks, printed);
      return mean(deltaE2000Rows(asked, printed));
    };
    expect(loop(anchored)).toBeLessThan(0.05);
    expect(loop(anchored)).toBeLessThan(0.3 * loop(plain));
    const probes = inksWithin(2000, 31);
    const [a, b] = [plain, anchored].map((profile) => {
      const out = new Float64Array(6000);
      unwrap(deviceToLab(profile, 'relative')).apply(probes, out);
      return out;
    });
    expect(mean(deltaE2000Rows(a, b))).toBeLessThan(0.01);
  });
});

describe('a separation', () => {
  it('in pure black prints greys of the saturation intent with K alone, and no others', () => {
    const profile = profileOf(model, {
      separation: { ...separationOf('medium', TOTAL_INK), pureBlack: true },
    });
    const asked = Float64Array.of(0, 0, 0, 12.5, 0, 0, 50, 0, 0, 100, 0, 0, 50, 30, 10);
    const [saturation, perceptual] = (['saturation', 'perceptual'] as const).map((intent) => {
      const inks = new Float64Array(20);
      unwrap(labToDevice(profile, intent)).apply(asked, inks);
      return inks;
    });
    for (const grey of [0, 1, 2]) {
      for (const ink of [0, 1, 2]) expect(saturation[4 * grey + ink]).toBeLessThan(1 / 1000);
      expect(perceptual[4 * grey]).toBeGreaterThan(0.1);
    }
    expect(saturation[3]).toBeCloseTo(1, 3);
    expect(saturation[4 * 2 + 3]).toBeGreaterThan(0.3);
    for (const ink of saturation.subarray(12, 16)) expect(ink).toBeLessThan(1 / 1000);
    expect(saturation[17]).toBeGreaterThan(0.3);
  });

  it('is previewed as the finished profile separates', () => {
    const separation = separationFrom({
      black: 'heavy',
      totalInk: 2.6,
      blackMost: 0.9,
      inkLimits: [1, 0.9, 1, 1],
    });
    const grid = previewGrid(fitInks(device, 4, xyz));
    const picture = Float64Array.of(60, 20, 20, 30, 0, 0);
    const preview = previewSeparation(grid, separation, 40, picture, Float64Array.of(0.75, 0.25));
    const built = profileOf(model, { separation, tableSize: 'normal' });
    const greys = Float64Array.from({ length: 41 * 3 }, (_, i) =>
      i % 3 === 0 ? 2.5 * Math.floor(i / 3) : 0,
    );
    const inks = new Float64Array(41 * 4);
    unwrap(labToDevice(built, 'relative')).apply(greys, inks);
    const apart = preview.greys.inks.map((value, i) => Math.abs(value - inks[i]));
    expect(summariseErrors(apart).mean).toBeLessThan(0.03);
    let most = 0;
    for (let i = 0; i < 41; i++) {
      const own = preview.greys.inks.subarray(4 * i, 4 * i + 4);
      expect(own[1]).toBeLessThanOrEqual(0.9);
      expect(own[3]).toBeLessThanOrEqual(0.9 + 1e-9);
      most = Math.max(most, own[0] + own[1] + own[2] + own[3]);
    }
    expect(most).toBeLessThanOrEqual(2.6 + 1e-9);
    expect(preview.picture.mean.reduce((a, b) => a + b, 0)).toBeGreaterThan(0.5);
    expect(preview.picture.most).toBeGreaterThan(preview.picture.mean.reduce((a, b) => a + b, 0));
    expect(preview.leaf.inGamut[0]).toBe(1);
    expect(preview.leaf.inGamut[11]).toBe(0);
  });

  it('bends straight paths gently, and a table with a step in it does not', () => {
    const profile = profileOf(model);
    const { bends, ends } = pathSmoothness(profile, 'perceptual', 60);
    expect(ends).toHaveLength(60);
    expect(summariseErrors(bends).largest).toBeLessThan(4);
    const tag = profile.tags.get('B2A0');
    if (tag?.type !== 'mBA' || tag.clut === undefined) throw new Error('no table');
    const points = tag.clut.grid[0];
    const from = 4 * points * points * (points >> 1);
    const values = tag.clut.values.map((value, i) => (i >= from ? value >> 1 : value));
    const broken = {
      ...profile,
      tags: new Map(profile.tags).set('B2A0', { ...tag, clut: { ...tag.clut, values } }),
    };
    expect(summariseErrors(pathSmoothness(broken, 'perceptual', 60).bends).largest).toBeGreaterThan(5);
  });
});
