import { CMYK } from '../device/process.ts';
import { describe, expect, it } from 'vitest';
import type { PatchSet } from '../cgats/patchSet.ts';
import { deltaE2000 } from '../colour/deltaE2000.ts';
import { tableIlluminant } from '../spectral/illuminant.ts';
import { GRID_380_730_10, gridWavelengths } from '../spectral/spectralGrid.ts';
import { seenUnder } from './seenUnder.ts';

const grid = GRID_380_730_10;
const nm = gridWavelengths(grid);
const flat = Array.from(nm, () => 0.5);
/** Two greys, one of them with bumps: alike under one light, not under another. */
const bumpy = Array.from(nm, (w) => 0.5 + 0.08 * Math.sin((2 * Math.PI * (w - 380)) / 110));
const set = (rows: readonly (readonly number[])[], devices: readonly (readonly number[])[]): PatchSet => ({
  ids: devices.map((_, i) => String(i)),
  process: CMYK,
  device: Float64Array.from(devices.flat()),
  spectra: { grid, values: Float64Array.from(rows.flat()) },
  conditions: {},
  notes: [],
});
const aimsOf = ({ device, spectra }: PatchSet) => ({
  conditions: {},
  device: device ?? new Float64Array(0),
  xyz: new Float64Array((device?.length ?? 0) * 0.75),
  spectra,
});

describe('colours seen under another light', () => {
  it('are grey for a flat spectrum under every light and observer', () => {
    const reading = set(
      [flat, flat],
      [
        [0, 0, 0, 0.4],
        [0, 0, 0, 0.4],
      ],
    );
    for (const name of ['D50', 'D65', 'A', 'F2', 'F11'] as const)
      for (const observer of ['2deg', '10deg'] as const) {
        const seen = seenUnder(reading, aimsOf(reading), tableIlluminant(name), observer);
        if (!seen.ok) throw new Error(name);
        expect(seen.value).toHaveLength(1);
        const [{ aim, measured }] = seen.value;
        expect(aim[0]).toBeCloseTo(116 * Math.cbrt(0.5) - 16, 2);
        expect(Math.hypot(aim[1], aim[2])).toBeLessThan(0.02);
        expect(measured).toEqual(aim);
      }
  });

  it('differ by the light where spectra differ', () => {
    const one = set([flat], [[0, 0, 0, 0.4]]);
    const other = set([bumpy], [[0, 0, 0, 0.4]]);
    const sizes = (['D50', 'A', 'F11'] as const).map((name) => {
      const seen = seenUnder(other, aimsOf(one), tableIlluminant(name), '2deg');
      return seen.ok ? deltaE2000(seen.value[0].aim, seen.value[0].measured) : NaN;
    });
    expect(Math.max(...sizes) - Math.min(...sizes)).toBeGreaterThan(0.5);
  });

  it('need spectra of both, and leave out what has no aim', () => {
    const one = set([flat], [[0, 0, 0, 0.4]]);
    const none = seenUnder(one, { ...aimsOf(one), spectra: undefined }, tableIlluminant('D65'), '2deg');
    expect(none.ok ? '' : none.issues[0].path).toBe('aims');
    const elsewhere = seenUnder(one, aimsOf(set([flat], [[1, 0, 0, 0]])), tableIlluminant('D65'), '2deg');
    expect(elsewhere.ok ? elsewhere.value : undefined).toEqual([]);
  });
});
