import { CMYK } from '../device/process.ts';
import { describe, expect, it } from 'vitest';
import type { PatchSet } from './patchSet.ts';
import { pickPatches } from './pickPatches.ts';

const SET: PatchSet = {
  ids: ['a', 'b', 'c'],
  names: ['paper', 'cyan', 'black'],
  process: CMYK,
  device: Float64Array.from([0, 0, 0, 0, 1, 0, 0, 0, 0, 0, 0, 1]),
  xyz: Float64Array.from([80, 85, 70, 15, 20, 50, 2, 2, 1.5]),
  spectra: { grid: { startNm: 400, stepNm: 100, count: 2 }, values: Float64Array.from([1, 2, 3, 4, 5, 6]) },
  conditions: { mode: 'M1' },
  notes: [],
};

describe('picking patches', () => {
  it('takes every column along, in the order asked for, and the conditions', () => {
    const picked = pickPatches(SET, [2, 0]);
    expect(picked.ids).toEqual(['c', 'a']);
    expect(picked.names).toEqual(['black', 'paper']);
    expect([...(picked.device ?? [])]).toEqual([0, 0, 0, 1, 0, 0, 0, 0]);
    expect([...(picked.xyz ?? [])]).toEqual([2, 2, 1.5, 80, 85, 70]);
    expect([...(picked.spectra?.values ?? [])]).toEqual([5, 6, 1, 2]);
    expect(picked.conditions).toEqual({ mode: 'M1' });
    expect(picked.lab).toBeUndefined();
  });

  it('may take none, and the same one twice', () => {
    expect(pickPatches(SET, []).ids).toEqual([]);
    expect([...(pickPatches(SET, [1, 1]).xyz ?? [])]).toEqual([15, 20, 50, 15, 20, 50]);
  });
});
