import { CMYK } from '../device/process.ts';
import { describe, expect, it } from 'vitest';
import { joinPatchSets } from './joinPatchSets.ts';
import { patchXyz } from './patchColours.ts';
import type { PatchSet } from './patchSet.ts';

const grid = { startNm: 400, stepNm: 20, count: 16 };
const spectral = (level: number, own = grid): PatchSet => ({
  ids: ['A1'],
  names: ['grey'],
  process: CMYK,
  device: Float64Array.of(0, 0, 0, 1 - level),
  spectra: { grid: own, values: new Float64Array(own.count).fill(level) },
  conditions: { mode: 'M1' },
  notes: [],
});

describe('joined patch sets', () => {
  it('keep spectra where bands agree, and number patches through', () => {
    const joined = joinPatchSets([spectral(0.5), spectral(0.25)]);
    expect(joined.ids).toEqual(['1', '2']);
    expect(joined.device).toHaveLength(8);
    expect(joined.spectra?.values).toHaveLength(32);
    expect(patchXyz(joined)?.[4]).toBeCloseTo(25, 6);
  });

  it('fall back to XYZ where they do not', () => {
    const joined = joinPatchSets([spectral(0.5), spectral(0.25, { startNm: 380, stepNm: 10, count: 36 })]);
    expect(joined.spectra).toBeUndefined();
    expect(joined.xyz?.[1]).toBeCloseTo(50, 6);
    expect(joined.xyz?.[4]).toBeCloseTo(25, 6);
  });

  it('of one set is that set', () => {
    const only = spectral(0.5);
    expect(joinPatchSets([only])).toBe(only);
  });
});
