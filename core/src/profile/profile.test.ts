import { inkProcess, RGB } from '../device/process.ts';
import { describe, expect, it } from 'vitest';
import { compileLut } from '../icc/compileLut.ts';
import { labDecoder, labEncoder } from '../icc/pcsEncoding.ts';
import {
  absoluteToRelativeLab,
  deviceToLab,
  labToDevice,
  mediaWhite,
  relativeToAbsoluteLab,
} from '../icc/profileTransform.ts';
import { sampleProfile } from '../icc/testing/sampleProfile.ts';
import { unwrap } from '../result.ts';
import { meanPaperXyz } from '../device/meanPaperXyz.ts';
import { characterisationText } from './characterisationText.ts';
import { buildForwardGrid, gridDeviceValues } from './forwardGrid.ts';
import { invertRgb } from './invertRgb.ts';
import { axisToAb, axisToLightness, COLORIMETRIC_AXES, lightnessToAxis, MAPPED_AXES } from './labAxis.ts';
import { labGridValues } from './labGrid.ts';
import { forwardTag, inverseTag, quantiseLab } from './profileTables.ts';
import { readPatchSet } from '../cgats/patchSetFromCgats.ts';

/** A device that is linear in Lab: L* from the mean, a* and b* from differences; its inverse is known. */
const LINEAR = buildForwardGrid(
  3,
  9,
  (device, out) => {
    for (let i = 0; i < device.length; i += 3) {
      const lightness = 20 + (80 * (device[i] + device[i + 1] + device[i + 2])) / 3;
      const y = ((lightness + 16) / 116) ** 3;
      out.set([96.42 * y, 100 * y, 82.49 * y], i);
    }
  },
  [96.42, 100, 82.49],
);

describe('tables of a profile', () => {
  it('list device values with the last channel fastest, ends included', () => {
    const values = gridDeviceValues(3, 3);
    expect(values).toHaveLength(81);
    expect([...values.subarray(0, 6)]).toEqual([0, 0, 0, 0, 0, 0.5]);
    expect([...values.subarray(78)]).toEqual([1, 1, 1]);
    expect(gridDeviceValues(4, 2)).toHaveLength(64);
  });

  it('put neutral Lab exactly on a node of the bent axes', () => {
    const grid = labGridValues(33, MAPPED_AXES);
    const middle = (16 * 33 * 33 + 16 * 33 + 16) * 3;
    expect([...grid.subarray(middle, middle + 3)]).toEqual([50, 0, 0]);
    expect(axisToAb(17 / 32, MAPPED_AXES)).toBeLessThan(3);
    expect(axisToAb(1, MAPPED_AXES)).toBeCloseTo(128, 9);
  });

  it('are denser in the darks and near neutral for colours as they are', () => {
    const step = (index: number): number =>
      axisToLightness((index + 1) / 32, COLORIMETRIC_AXES) - axisToLightness(index / 32, COLORIMETRIC_AXES);
    expect(step(31) / step(0)).toBeGreaterThan(2.5);
    expect(step(31) / step(0)).toBeLessThan(3);
    expect(axisToLightness(1, COLORIMETRIC_AXES)).toBeCloseTo(100, 9);
    expect(axisToAb(17 / 32, COLORIMETRIC_AXES)).toBeLessThan(axisToAb(17 / 32, MAPPED_AXES));
  });

  it.each([2, 4] as const)('keep Lab to a 16-bit step, version %i', (version) => {
    const lab = Float64Array.of(0, 0, 0, 100, 0, 0, 54.321, -67.89, 43.21, 33.3, 100, -100);
    quantiseLab(lab, version).forEach((value, i) => expect(Math.abs(value - lab[i])).toBeLessThan(0.003));
    expect(quantiseLab(lab, version)[4]).toBe(0);
    expect(quantiseLab(quantiseLab(lab, version), version)).toEqual(quantiseLab(lab, version));
  });

  it.each([2, 4] as const)('give back the grid they were made of, version %i', (version) => {
    const tag = forwardTag(LINEAR, version);
    const { run, stride } = compileLut(tag, 'tetrahedral');
    const decode = labDecoder(tag, stride);
    const row = new Float64Array(stride);
    const device = gridDeviceValues(3, LINEAR.points);
    for (let i = 0; i < device.length; i += 33) {
      row.set(device.subarray(i, i + 3));
      run(row, 1);
      decode(row, 1);
      row.forEach((value, axis) => expect(value).toBeCloseTo(LINEAR.lab[i + axis], 2));
    }
  });

  it.each([
    [2, MAPPED_AXES],
    [4, MAPPED_AXES],
    [2, COLORIMETRIC_AXES],
    [4, COLORIMETRIC_AXES],
  ] as const)('look Lab up where the axes say, version %i, %o', (version, axes) => {
    // Each node holds its own position along L*: the table then returns that of any Lab.
    const points = 17;
    const values = Float64Array.from(
      { length: points ** 3 },
      (_, node) => Math.floor(node / points ** 2) / (points - 1),
    );
    const tag = inverseTag(1, points, values, version, axes);
    const { run, stride } = compileLut(tag, 'multilinear');
    const encode = labEncoder(tag, stride);
    const row = new Float64Array(stride);
    for (const lab of [
      [0, 0, 0],
      [100, 0, 0],
      [37.7, 80, -90],
      [62, -3, 4],
    ] as const) {
      row.set(lab);
      encode(row, 1);
      run(row, 1);
      expect(row[0]).toBeCloseTo(lightnessToAxis(lab[0], axes), 3);
    }
  });
});

describe('inverse', () => {
  it('of a monotone grey device finds the one lightness', () => {
    const { device, distance } = invertRgb(LINEAR, Float64Array.of(60, 0, 0, 20, 0, 0, 100, 0, 0));
    const mean = (at: number): number => (device[at] + device[at + 1] + device[at + 2]) / 3;
    expect(mean(0)).toBeCloseTo(0.5, 3);
    expect(mean(3)).toBeCloseTo(0, 3);
    expect(mean(6)).toBeCloseTo(1, 3);
    distance.forEach((value) => expect(value).toBeLessThan(0.02));
  });

  it('tells progress and refuses other channels', () => {
    const told: number[] = [];
    invertRgb(LINEAR, new Float64Array(3 * 4100).fill(50), (fraction) => told.push(fraction));
    expect(told.length).toBeGreaterThanOrEqual(3);
    expect(() => invertRgb({ ...LINEAR, channels: 4 }, new Float64Array(3))).toThrow(RangeError);
  });
});

describe('media-relative and absolute', () => {
  it('are each other’s inverse, and paper is the media white', () => {
    const white = [0.85, 0.88, 0.7] as const;
    const lab = [40, 20, -30] as const;
    absoluteToRelativeLab(relativeToAbsoluteLab(lab, white), white).forEach((value, i) =>
      expect(value).toBeCloseTo(lab[i], 9),
    );
    expect(relativeToAbsoluteLab([100, 0, 0], white)[0]).toBeCloseTo(95.15, 1);
  });

  it('differ by the white of the profile in both directions', () => {
    const profile = sampleProfile(4);
    expect(mediaWhite(profile)[1]).toBe(0.93);
    const relative = new Float64Array(3);
    const absolute = new Float64Array(3);
    unwrap(deviceToLab(profile, 'relative')).apply([1, 1, 1], relative);
    unwrap(deviceToLab(profile, 'absolute')).apply([1, 1, 1], absolute);
    expect(relative[0]).toBeCloseTo(100, 2);
    expect(absolute[0]).toBeLessThan(98);
    const device = new Float64Array(3);
    unwrap(labToDevice(profile, 'absolute')).apply([50, 0, 0], device);
    device.forEach((value) => expect(value).toBeCloseTo(0.25, 3));
  });

  it('are refused where a profile has no table or another connection space', () => {
    const profile = sampleProfile(4);
    const bare = { ...profile, tags: new Map() };
    const link = { ...profile, header: { ...profile.header, pcs: 'CMYK' } };
    const codes = [deviceToLab(bare, 'relative'), labToDevice(link, 'perceptual')].map((result) =>
      result.ok ? 'fine' : result.issues[0].code,
    );
    expect(codes).toEqual(['icc.no-table', 'icc.pcs']);
    expect(mediaWhite(bare)).toEqual([0.9642, 1, 0.8249]);
  });
});

describe('characterisation data', () => {
  it('go into a profile as CGATS that can be read again, without places on paper', () => {
    const set = {
      ids: ['1', '2'],
      process: RGB,
      device: Float64Array.of(1, 1, 1, 0, 0, 0),
      xyz: Float64Array.of(85, 88, 72, 1, 1, 1),
      layout: { page: Int32Array.of(1, 1), strip: Int32Array.of(1, 1), place: Int32Array.of(1, 2) },
      conditions: { mode: 'M1' as const },
      notes: [],
    };
    const back = unwrap(readPatchSet(characterisationText(set)));
    expect(back.layout).toBeUndefined();
    expect(back.conditions.mode).toBe('M1');
    expect([...(back.xyz ?? [])]).toEqual([85, 88, 72, 1, 1, 1]);
  });

  it('give the mean paper, or none', () => {
    const device = Float64Array.of(1, 1, 1, 0, 0, 0, 1, 1, 1);
    const xyz = Float64Array.of(84, 87, 71, 1, 1, 1, 86, 89, 73);
    expect(meanPaperXyz(RGB, device, xyz)).toEqual([85, 88, 72]);
    expect(meanPaperXyz(inkProcess(['C', 'M', 'Y']), device, xyz)).toEqual([1, 1, 1]);
    expect(meanPaperXyz(RGB, Float64Array.of(0.5, 0.5, 0.5), Float64Array.of(1, 1, 1))).toBeUndefined();
  });
});
