import { describe, expect, it } from 'vitest';
import { chartPatches } from '../charts/chartPatches.ts';
import { makeRampChart } from '../charts/rampChart.ts';
import { CMYK, GREY, inkProcess, RGB } from '../device/process.ts';
import { proposeTotalInk, inputTotalOf } from '../limits/totalInk.ts';
import { sampleToneCurve, straightCurve } from '../tone/toneCurve.ts';
import { measuresFor } from '../tone/toneMeasure.ts';
import { leastPatches, profiledProcess } from './leastPatches.ts';

const SIX = inkProcess([...'CMYKOG']);
const NO_BLACK = inkProcess([...'CMYOG']);

describe('a process of many inks', () => {
  it('has profiles where C, M, Y and K are among five to eight', () => {
    for (const process of [RGB, CMYK, SIX, inkProcess([...'KOGCMYVR'])])
      expect(profiledProcess(process)).toBe(true);
    for (const process of [GREY, NO_BLACK, inkProcess(['C', 'M', 'Y', 'O'])])
      expect(profiledProcess(process)).toBe(false);
    expect([RGB, CMYK, SIX].map(leastPatches)).toEqual([40, 150, 350]);
  });

  it('has charts of its own size', () => {
    expect(chartPatches(SIX)).toMatchObject({ least: 400, most: 3000 });
    expect(chartPatches(CMYK)).toMatchObject({ least: 200, usual: 800 });
    expect(chartPatches(RGB).usual).toBe(900);
    for (const process of [RGB, CMYK, SIX])
      expect(chartPatches(process).least).toBeGreaterThanOrEqual(leastPatches(process));
  });

  it('is made even by what is agreed for its inks', () => {
    expect(measuresFor(['C', 'M', 'Y', 'K'])).toContain('tvi');
    expect(measuresFor(['C', 'M', 'Y', 'K', 'O'])).not.toContain('tvi');
    expect(measuresFor(['O'])).toContain('sctv');
  });

  it('has its total ink from C, M and Y beside black, whichever channels they are', () => {
    const order = inkProcess([...'OKYMCG']);
    const { device, names } = makeRampChart(order, { steps: 5, totalInk: true });
    const rows = names.flatMap((name, row) => (name.startsWith('total ') ? [row] : []));
    expect(rows).toHaveLength(21);
    for (const row of rows) {
      const [o, k, y, m, c, g] = device.subarray(6 * row, 6 * row + 6);
      expect([o, k, g]).toEqual([0, 1, 0]);
      expect([y, m]).toEqual([c, c]);
    }
    // Darker up to 300 %, no darker beyond.
    const xyz = new Float64Array(names.length * 3).fill(80);
    for (const row of rows) {
      const total = device.subarray(6 * row, 6 * row + 6).reduce((sum, value) => sum + value, 0);
      xyz[3 * row + 1] = 80 * 10 ** -(1 + 0.4 * Math.min(1, total - 2));
    }
    const found = proposeTotalInk(device, xyz, 80, order);
    expect(found?.steps).toHaveLength(21);
    expect(found?.total).toBeGreaterThan(2.85);
    expect(found?.total).toBeLessThan(3.05);
    expect(proposeTotalInk(device, xyz, 80, NO_BLACK)).toBeUndefined();
    // A patch with another ink beside them is none of the series.
    const spoilt = device.map((value, i) => (i % 6 === 5 ? 0.1 : value));
    expect(proposeTotalInk(spoilt, xyz, 80, order)).toBeUndefined();
  });

  it('counts the total at the input by the curves of C, M, Y and K alone', () => {
    const half = sampleToneCurve((t) => t / 2);
    const curves = [half, straightCurve(), half, half, half, half];
    const order = inkProcess([...'OKYMCG']);
    expect(inputTotalOf(2, curves, order)).toBeCloseTo(3, 6);
    expect(inputTotalOf(2.5, curves, order)).toBe(4);
    expect(inputTotalOf(2.4, curves, NO_BLACK)).toBe(2.4);
  });
});
