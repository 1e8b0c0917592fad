import { describe, expect, it } from 'vitest';
import { rgbUncertainty } from '@melto/core/characterise/modelUncertainty';
import { fitRgbModel, rgbModelLab } from '@melto/core/characterise/rgbModel';
import type { RgbModel } from '@melto/core/characterise/rgbModel';
import { uncertaintyMap } from '@melto/core/characterise/uncertaintyMap';
import { makeRgbChart } from '@melto/core/charts/rgbChart';
import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { labToXyz, xyzRowsToLab } from '@melto/core/colour/xyzToLab';
import { srgbToLab } from '@melto/core/colour/srgb';
import { RGB } from '@melto/core/device/process';
import { buildRgbProfile } from '@melto/core/profile/buildRgbProfile';
import { createRandom } from '@melto/core/numerics/random';
import { mean } from '@melto/core/numerics/statistics';
import { refinementPatches, tiePatches } from '@melto/core/refine/refinementPatches';
import { wrenTruthXyz } from '@melto/simulator/wrenTruth';
import { noisyLab } from '@melto/simulator/readingNoise';
import { hueTurned } from './printedHue.ts';

const random = createRandom(41);
const { device } = makeRgbChart(250, 2);
const xyz = read(device);
const model = fitRgbModel(device, xyz);
const uncertainty = rgbUncertainty(model);
const { profile } = buildRgbProfile(model, {
  ...{ version: 4, tableSize: 'small', description: 'blue', copyright: '', createdMs: 0 },
  paperXyz: [86, 89, 74],
});
const probes = Float64Array.from({ length: 3 * 2000 }, () => random.uniform());

function truthLab(rgb: Float64Array): Float64Array {
  const lab = wrenTruthXyz('quay-proof-200', 'fine', rgb);
  xyzRowsToLab(lab, WHITE_D50_MEASURED, lab);
  return lab;
}

/** A reading with noise of 0.2 ΔE00. */
function read(rgb: Float64Array): Float64Array {
  const lab = truthLab(rgb);
  for (let i = 0; i < lab.length; i += 3)
    lab.set(labToXyz(noisyLab([lab[i], lab[i + 1], lab[i + 2]], 0.2, random), WHITE_D50_MEASURED), i);
  return lab;
}

function misses(fitted: RgbModel, rgb: Float64Array): Float64Array {
  const out = new Float64Array(rgb.length);
  rgbModelLab(fitted, rgb, out);
  return deltaE2000Rows(truthLab(rgb), out);
}

function joinedBy(added: Float64Array): RgbModel {
  return fitRgbModel(Float64Array.of(...device, ...added), Float64Array.of(...xyz, ...read(added)));
}

describe('a profile of an RGB device', () => {
  it.each(['relative', 'perceptual', 'saturation'] as const)(
    'prints the blue of a screen blue, not purple: %s',
    (intent) => {
      for (const rgb of [
        [0, 0, 1],
        [0.1, 0.05, 0.9],
      ] as const)
        expect(hueTurned(profile, intent, srgbToLab([...rgb]))).toBeLessThan(6);
    },
  );
});

describe('refining an RGB device', () => {
  it('halves the error of thirty colours that are read four times, and harms nothing elsewhere', () => {
    const draw = createRandom(7);
    const wanted = Array.from({ length: 30 }, (_, i) => ({
      name: `brand ${i + 1}`,
      device: [0, 1, 2].map(() => 0.1 + 0.8 * draw.uniform()),
    }));
    const patches = refinementPatches(
      { wanted, readings: 4, unsure: 0, process: RGB, totalInk: Infinity, seed: 1 },
      uncertainty,
    );
    expect(patches.names).toHaveLength(tiePatches(RGB) + 30 * 4);
    const refined = joinedBy(patches.device);
    const values = Float64Array.from(wanted.flatMap((colour) => colour.device));
    expect(mean(misses(refined, values))).toBeLessThan(0.6 * mean(misses(model, values)));
    expect(mean(misses(refined, probes))).toBeLessThan(mean(misses(model, probes)) + 0.03);
  });

  it('adds patches that tell, papers and corners that tie sheets together', () => {
    const { names, device: values } = refinementPatches(
      { wanted: [], readings: 1, unsure: 150, process: RGB, totalInk: Infinity, seed: 1 },
      uncertainty,
    );
    expect(names.filter((name) => name === 'paper')).toHaveLength(6);
    expect(names.filter((name) => name === 'primary')).toHaveLength(7);
    expect([...values.subarray(0, 3)]).toEqual([1, 1, 1]);
    expect(new Set(names.map((_, i) => values.subarray(3 * i, 3 * i + 3).join())).size).toBe(1 + 7 + 150);
    expect(mean(misses(joinedBy(values), probes))).toBeLessThan(0.9 * mean(misses(model, probes)));
  });

  it('is drawn as a map with a column of greys', () => {
    const map = uncertaintyMap(uncertainty, RGB);
    expect(map.columns[0]).toBe('grey');
    const greys = map.lightness.map((_, band) => map.deltaE[band * map.columns.length]);
    expect(greys.filter((value) => value !== null).length).toBeGreaterThanOrEqual(3);
    expect(map.mean).toBeGreaterThan(0.3 * mean(misses(model, probes)));
    expect(map.mean).toBeLessThan(3 * mean(misses(model, probes)));
  });
});
