import { describe, expect, it } from 'vitest';
import { layoutChart } from '../charts/layoutChart.ts';
import { genericLab } from '../charts/expectedColours.ts';
import { makeRampChart } from '../charts/rampChart.ts';
import { readPatchSet } from '../cgats/patchSetFromCgats.ts';
import { patchSetToCgats } from '../cgats/patchSetToCgats.ts';
import { writeCgats } from '../cgats/writeCgats.ts';
import { unwrap } from '../result.ts';
import { inkRamps } from '../tone/inkRamps.ts';
import { meanPaperXyz } from './meanPaperXyz.ts';
import {
  bareValues,
  blackChannel,
  channelCount,
  channelNames,
  CMYK,
  drivenByInks,
  drivenByLight,
  GREY,
  inkProcess,
  isBare,
  RGB,
  sameProcess,
} from './process.ts';

const SIX = inkProcess(['C', 'M', 'Y', 'K', 'O', 'G']);

describe('a process', () => {
  it('knows its channels, which is black, and what leaves the stock bare', () => {
    expect(channelNames(CMYK)).toEqual(['C', 'M', 'Y', 'K']);
    expect([channelCount(RGB), channelCount(GREY), channelCount(SIX)]).toEqual([3, 1, 6]);
    expect([blackChannel(CMYK), blackChannel(SIX), blackChannel(RGB), blackChannel(GREY)]).toEqual([
      3,
      3,
      undefined,
      0,
    ]);
    expect([bareValues(RGB), bareValues(GREY)]).toEqual([[1, 1, 1], [0]]);
    expect([drivenByInks(SIX), drivenByInks(RGB), drivenByLight(RGB)]).toEqual([true, false, true]);
    expect([RGB.scale, CMYK.scale]).toEqual([255, 100]);
  });

  it('is the same as another of the same channels in the same order, and no other', () => {
    expect(sameProcess(inkProcess(['C', 'M', 'Y', 'K']), CMYK)).toBe(true);
    expect(sameProcess(inkProcess(['K', 'C', 'M', 'Y']), CMYK)).toBe(false);
    expect(sameProcess(SIX, CMYK)).toBe(false);
    expect(sameProcess(inkProcess(['R', 'G', 'B']), RGB)).toBe(false);
    expect(sameProcess(undefined, CMYK)).toBe(false);
  });

  it('has one to eight channels of different names', () => {
    expect(() => inkProcess([])).toThrow(RangeError);
    expect(() => inkProcess(['C', 'C'])).toThrow(RangeError);
    expect(inkProcess([...'CMYKOGVR']).channels).toHaveLength(8);
    expect(() => inkProcess([...'CMYKOGVRB'])).toThrow('1 to 8');
  });

  it('finds bare stock to a millionth', () => {
    const device = Float64Array.of(0, 0, 0, 0.9e-6, 0, 0, 0, 1.1e-6);
    expect([isBare(CMYK, device, 0), isBare(CMYK, device, 1)]).toEqual([true, false]);
    expect(isBare(RGB, [1, 1, 1 - 1.1e-6], 0)).toBe(false);
    expect(meanPaperXyz(CMYK, device, Float64Array.of(80, 82, 70, 1, 1, 1))).toEqual([80, 82, 70]);
  });
});

describe('a process of six inks', () => {
  const chart = makeRampChart(SIX, { steps: 6, totalInk: true });

  it('has ramps of each ink, paper, and overprints with full black', () => {
    expect(chart.names.filter((name) => /^[CMYKOG] \d+$/.test(name))).toHaveLength(6 * 5);
    const total = chart.names.indexOf('total 300');
    const values = [...chart.device.subarray(6 * total, 6 * total + 6)];
    expect(values[3]).toBe(1);
    // Cyan, magenta and yellow beside black; the others take no part in the depths.
    for (const ink of [0, 1, 2]) expect(values[ink]).toBeCloseTo(2 / 3, 2);
    expect(values.slice(4)).toEqual([0, 0]);
  });

  it('is laid out, written and read back with its own fields', () => {
    const layout = layoutChart(SIX, chart.device, 'a4', 1);
    expect(layout.pages.flat(2).sort((a, b) => a - b)).toEqual(chart.names.map((_, i) => i));
    const text = writeCgats(
      patchSetToCgats({
        ...{ ids: chart.names.map(String), names: chart.names, process: SIX, device: chart.device },
        ...{ conditions: {}, notes: [] },
      }),
    );
    expect(text).toContain('CMYKOG_O\tCMYKOG_G');
    const back = unwrap(readPatchSet(text));
    expect(sameProcess(back.process, SIX)).toBe(true);
    back.device?.forEach((value, i) => expect(value).toBeCloseTo(chart.device[i], 6));
  });

  it('gives the ramps of its inks, each by the filter that sees it most', () => {
    const rows = chart.names.length;
    const xyz = new Float64Array(rows * 3).fill(80);
    // Green lets no red through: its tints darken in X.
    chart.names.forEach((name, row) => {
      const tone = /^G (\d+)/.exec(name)?.[1];
      if (tone !== undefined) xyz[3 * row] = 80 - 0.7 * Number(tone);
    });
    const ramps = inkRamps(SIX, chart.device, xyz);
    expect(ramps.map(({ ink, channel }) => [ink, channel])).toEqual(
      [...'CMYKOG'].map((ink, channel) => [ink, channel]),
    );
    const green = ramps.find(({ ink }) => ink === 'G');
    expect(Math.max(...(green?.density ?? []))).toBeCloseTo(Math.log10(80 / 10), 2);
  });

  it('looks roughly as its inks do, darker the more there are', () => {
    const lab = (values: number[]): readonly number[] => genericLab(SIX, values);
    expect(lab([0, 0, 0, 0, 0, 0])[0]).toBeGreaterThan(90);
    expect(lab([0, 0, 0, 0, 1, 0])[1]).toBeGreaterThan(20);
    expect(lab([0, 0, 0, 0, 0, 1])[1]).toBeLessThan(-20);
    expect(lab([1, 1, 1, 1, 1, 1])[0]).toBeLessThan(20);
  });
});

describe('fields of device values', () => {
  const read = (fields: string, row: string) =>
    readPatchSet(
      `CGATS.17\nBEGIN_DATA_FORMAT\nSAMPLE_ID ${fields}\nEND_DATA_FORMAT\nBEGIN_DATA\n1 ${row}\nEND_DATA\n`,
    );

  it('that are counted give inks without names, and say so', () => {
    const set = unwrap(read('5CLR_1 5CLR_2 5CLR_3 5CLR_4 5CLR_5', '0 25 50 75 100'));
    expect(set.process?.channels.map(({ name }) => name)).toEqual([
      'ink 1',
      'ink 2',
      'ink 3',
      'ink 4',
      'ink 5',
    ]);
    expect([...(set.device ?? [])]).toEqual([0, 0.25, 0.5, 0.75, 1]);
    expect(set.notes.join()).toContain('does not name them');
  });

  it('of which one is missing are refused by its name', () => {
    const set = read('CMYKOG_C CMYKOG_M CMYKOG_Y CMYKOG_K CMYKOG_O LAB_L LAB_A LAB_B', '0 0 0 0 0 50 0 0');
    expect(set.ok ? '' : set.issues[0]?.path).toBe('CMYKOG_G');
  });

  it('of colours and differences are not taken for inks', () => {
    const set = unwrap(read('LAB_L LAB_A LAB_B D_RED XYZ_X XYZ_Y XYZ_Z', '50 0 0 1 20 20 20'));
    expect(set.process).toBeUndefined();
  });

  it('go from 0 to 100 for inks, and no further', () => {
    expect(read('K_K LAB_L LAB_A LAB_B', '100 20 0 0').ok).toBe(true);
    expect(read('K_K LAB_L LAB_A LAB_B', '100.01 20 0 0').ok).toBe(false);
    expect(read('K_K LAB_L LAB_A LAB_B', '-0.01 20 0 0').ok).toBe(false);
  });
});
