import { describe, expect, it } from 'vitest';
import { chooseSmoothing } from '@melto/core/characterise/chooseSmoothing';
import { fitReport, reportedRgb } from '@melto/core/characterise/fitReport';
import { fitSpline } from '@melto/core/characterise/fitSpline';
import { fitSpaceToLab, fitSpaceToXyz, xyzToFitSpace } from '@melto/core/characterise/fitSpace';
import { mergeRepeats } from '@melto/core/characterise/mergeRepeats';
import { evaluateSpline } from '@melto/core/characterise/radialSpline';
import { fitRgbModel, rgbModelLab } from '@melto/core/characterise/rgbModel';
import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzRowsToLab } from '@melto/core/colour/xyzToLab';
import { cubeSurface } from '@melto/core/gamut/radialBoundary';
import { compressRadius, createGamutMap, expandRadius, gamutBoundary } from '@melto/core/gamut/gamutMap';
import { createRandom } from '@melto/core/numerics/random';
import { mean } from '@melto/core/numerics/statistics';
import { forwardLab } from '@melto/core/profile/buildRgbProfile';
import { profileName } from '@melto/core/profile/describeProfile';
import { buildForwardGrid } from '@melto/core/profile/forwardGrid';
import { invertRgb } from '@melto/core/profile/invertRgb';
import {
  abToAxis,
  axisToAb,
  axisToLightness,
  COLORIMETRIC_AXES,
  lightnessToAxis,
  MAPPED_AXES,
} from '@melto/core/profile/labAxis';
import { wrenTruthXyz } from '@melto/simulator/wrenTruth';
import { wrenModel } from './wrenProfile.ts';

const random = createRandom(77);
const cloud = (count: number): Float64Array =>
  Float64Array.from({ length: count * 3 }, () => random.uniform());

describe('spline', () => {
  const centres = cloud(60);
  const smooth = (rows: Float64Array): Float64Array =>
    Float64Array.from(
      { length: rows.length / 3 },
      (_, i) => Math.sin(2 * rows[3 * i]) + rows[3 * i + 1] * rows[3 * i + 2],
    );

  it('reproduces linear functions exactly, whatever the smoothing', () => {
    const linear = (rows: Float64Array): Float64Array =>
      Float64Array.from(
        { length: rows.length / 3 },
        (_, i) => 2 + rows[3 * i] - 3 * rows[3 * i + 1] + 0.5 * rows[3 * i + 2],
      );
    const spline = fitSpline(
      { inputs: 3, outputs: 1, centres, targets: linear(centres), counts: new Float64Array(60).fill(1) },
      10,
    );
    const probe = cloud(20);
    const out = new Float64Array(20);
    evaluateSpline(spline, probe, out);
    linear(probe).forEach((value, i) => expect(out[i]).toBeCloseTo(value, 7));
  });

  it('goes through its data with little smoothing and follows the heavier of two readings', () => {
    const targets = smooth(centres);
    const counts = new Float64Array(60).fill(1);
    counts[7] = 400;
    targets[7] += 0.2;
    const out = new Float64Array(60);
    evaluateSpline(fitSpline({ inputs: 3, outputs: 1, centres, targets, counts }, 1e-9), centres, out);
    targets.forEach((value, i) => expect(out[i]).toBeCloseTo(value, 5));
    evaluateSpline(fitSpline({ inputs: 3, outputs: 1, centres, targets, counts }, 0.3), centres, out);
    expect(Math.abs(out[7] - targets[7])).toBeLessThan(0.02);
  });

  it('chooses more smoothing for noisier data', () => {
    const counts = new Float64Array(200).fill(1);
    const points = cloud(200);
    const clean = smooth(points);
    const noisy = clean.map((value) => value + 0.1 * random.normal());
    const choose = (targets: Float64Array): number =>
      chooseSmoothing({ inputs: 3, outputs: 1, centres: points, targets, counts }, 1);
    expect(choose(noisy)).toBeGreaterThan(10 * choose(clean));
  });

  it('refuses data that cannot carry a model', () => {
    const flat = Float64Array.from({ length: 30 * 3 }, (_, i) => (i % 3 === 2 ? 0.5 : random.uniform()));
    expect(() =>
      fitSpline(
        {
          inputs: 3,
          outputs: 1,
          centres: flat,
          targets: new Float64Array(30),
          counts: new Float64Array(30).fill(1),
        },
        1,
      ),
    ).toThrow(RangeError);
  });
});

describe('model of an RGB device', () => {
  const { model, device, xyz } = wrenModel(300);

  it('predicts colours that were not on the chart, and its cross-validation tells how well', () => {
    const probe = cloud(600);
    const truth = wrenTruthXyz('quay-proof-200', 'fine', probe);
    xyzRowsToLab(truth, WHITE_D50_MEASURED, truth);
    const predicted = new Float64Array(truth.length);
    rgbModelLab(model, probe, predicted);
    const actual = mean(deltaE2000Rows(truth, predicted));
    expect(actual).toBeLessThan(0.6);
    expect(model.crossValidation.summary.mean).toBeGreaterThan(actual * 0.6);
    expect(model.crossValidation.summary.mean).toBeLessThan(actual * 3);
  });

  it('reports the fit with its worst patches, axes and repeatability', () => {
    const report = fitReport(reportedRgb(model), device, xyz);
    expect(report.histogram.counts.reduce((a, b) => a + b, 0)).toBe(report.distinct);
    expect(report.worst[0].deltaE).toBe(report.summary.largest);
    expect(report.repeatability?.mean).toBeLessThan(1e-6);
    expect(report.neutralAxis[0].lab[0]).toBeLessThan(report.neutralAxis[32].lab[0]);
    expect(report.patches).toBe(300);
  });

  it('names a patch that was read wrong', () => {
    const wrong = xyz.slice();
    wrong[3 * 150] *= 1.4;
    wrong[3 * 150 + 2] *= 0.7;
    const damaged = fitReport(reportedRgb(fitRgbModel(device, wrong)), device, wrong);
    expect(damaged.worst[0].row).toBe(150);
    expect(damaged.outliers).toContain(150);
  });

  it('inverts its own table inside the gamut and stays within 0..1 outside', () => {
    const grid = buildForwardGrid(
      3,
      17,
      (rows, out) => out.set(wrenTruthXyz('quay-proof-200', 'fine', rows)),
      [87.34, 90.35, 75.05],
    );
    const probe = cloud(300);
    const labs = new Float64Array(900);
    for (let i = 0; i < 300; i++) labs.set(forwardLab(grid, [...probe.subarray(3 * i, 3 * i + 3)]), 3 * i);
    const inside = invertRgb(grid, labs);
    for (const distance of inside.distance) expect(distance).toBeLessThan(0.05);
    const outside = invertRgb(grid, Float64Array.of(50, 110, 0, 10, -60, 20, 99, 40, 90));
    for (const value of outside.device) expect(value >= 0 && value <= 1).toBe(true);
    for (const distance of outside.distance) expect(distance).toBeGreaterThan(5);
  });
});

describe('small parts', () => {
  it('fit space goes to XYZ, to Lab and back', () => {
    const xyz = Float64Array.of(20, 30, 10, 0.2, 0.1, 0.3, 96.422, 100, 82.521);
    const y = new Float64Array(9);
    const back = new Float64Array(9);
    const lab = new Float64Array(9);
    const direct = new Float64Array(9);
    xyzToFitSpace(xyz, y);
    fitSpaceToXyz(y, back);
    xyz.forEach((value, i) => expect(back[i]).toBeCloseTo(value, 9));
    fitSpaceToLab(y, lab);
    xyzRowsToLab(xyz, WHITE_D50_MEASURED, direct);
    direct.forEach((value, i) => expect(lab[i]).toBeCloseTo(value, 9));
  });

  it('merges repeats and keeps their rows', () => {
    const merged = mergeRepeats(
      Float64Array.of(1, 1, 1, 0, 0, 0, 1, 1, 1),
      3,
      Float64Array.of(80, 90, 70, 1, 1, 1, 82, 92, 72),
    );
    expect([...merged.counts]).toEqual([2, 1]);
    expect([...merged.xyz.subarray(0, 3)]).toEqual([81, 91, 71]);
    expect(merged.sources).toEqual([[0, 2], [1]]);
  });

  it('bends the axes about an exact neutral', () => {
    for (const axes of [COLORIMETRIC_AXES, MAPPED_AXES]) {
      expect(abToAxis(0, axes)).toBe(0.5);
      for (const ab of [-128, -40, -1, 0.5, 12, 127])
        expect(axisToAb(abToAxis(ab, axes), axes)).toBeCloseTo(ab, 9);
      for (const l of [0, 3, 50, 99.5, 100])
        expect(axisToLightness(lightnessToAxis(l, axes), axes)).toBeCloseTo(l, 9);
    }
  });

  it('compresses radii without a crease and back again', () => {
    for (const r of [0.1, 0.39, 0.4, 0.45, 0.6, 0.8]) {
      const pressed = compressRadius(r, 0.5, 0.7, 0.8);
      expect(pressed).toBeLessThanOrEqual(r);
      expect(expandRadius(pressed, 0.5, 0.7, 0.8)).toBeCloseTo(r, 9);
    }
    expect(compressRadius(0.7, 0.5, 0.7, 0.8)).toBeCloseTo(0.5, 12);
    const slope = (compressRadius(0.4001, 0.5, 0.7, 0.8) - compressRadius(0.4, 0.5, 0.7, 0.8)) / 0.0001;
    expect(slope).toBeCloseTo(1, 2);
  });

  it('spreads radii where the device reaches farther, without a crease and back again', () => {
    for (const r of [0.01, 0.2, 0.49, 0.5, 0.51, 0.7]) {
      const spread = compressRadius(r, 0.7, 0.5, 0.8);
      expect(spread).toBeGreaterThan(r);
      expect(expandRadius(spread, 0.7, 0.5, 0.8)).toBeCloseTo(r, 9);
    }
    expect(compressRadius(0.5, 0.7, 0.5, 0.8)).toBeCloseTo(0.7, 12);
    expect(compressRadius(1e-6, 0.7, 0.5, 0.8) / 1e-6).toBeCloseTo(1, 5);
    // What lies beyond the source stays as far beyond.
    expect(compressRadius(0.6, 0.7, 0.5, 0.8)).toBeCloseTo(0.8, 12);
  });

  it('maps a perceptual space onto a device and back, greys neutral, without contours', () => {
    const corner = (d: readonly number[]): readonly [number, number, number] => [
      20 + 27 * (d[0] + d[1] + d[2]) - 0.3,
      50 * (d[0] - d[1]),
      50 * (d[1] - d[2]),
    ];
    const map = createGamutMap(gamutBoundary(cubeSurface(17, corner)), {
      sourceBlack: [0, 0, 0],
      deviceBlack: [0.03 * 0.9642, 0.03, 0.03 * 0.8249],
      strength: { knee: 0.8, stretch: 1, over: 0.05 },
    });
    for (const lab of [
      [50, 10, 5],
      [40, -40, 30],
      [70, 20, -30],
      [90, 2, 1],
    ] as const)
      map.fromDevice(map.toDevice(lab)).forEach((value, i) => expect(value).toBeCloseTo(lab[i], 4));
    for (const l of [0, 20, 60, 100])
      expect(Math.hypot(...map.toDevice([l, 0, 0]).slice(1))).toBeLessThan(1e-6);
    let before = map.toDevice([50, 0, 0]);
    let step = 0;
    for (let c = 1; c <= 80; c++) {
      const now = map.toDevice([50, c, -c / 2]);
      const next = Math.hypot(now[0] - before[0], now[1] - before[1], now[2] - before[2]);
      if (c > 1) expect(Math.abs(next - step)).toBeLessThan(0.15);
      step = next;
      before = now;
    }
  });

  it('names profiles by a pattern with safe letters only', () => {
    expect(
      profileName('{device}_{stock}_{mode}_{date}', {
        device: 'Wren',
        stock: 'Chalk Rag 310',
        mode: 'fine',
        date: '2026-03-14',
      }),
    ).toBe('Wren_ChalkRag310_fine_2026-03-14');
    expect(profileName('../{device}', { device: 'Wrén/2', stock: '', mode: '', date: '' })).toBe('..Wren2');
    expect(profileName('///', { device: '', stock: '', mode: '', date: '' })).toBe('profile');
  });
});
