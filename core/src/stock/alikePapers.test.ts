import { describe, expect, it } from 'vitest';
import type { PatchSet } from '../cgats/patchSet.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { labToXyz } from '../colour/xyzToLab.ts';
import { RGB } from '../device/process.ts';
import { comparePapers, LEAST_COMMON } from './alikePapers.ts';

const STEPS = [0, 0.5, 1];
const DEVICE = STEPS.flatMap((r) => STEPS.flatMap((g) => STEPS.map((b) => [r, g, b])));

/** A sheet whose paper is L* `white`, and whose other colours are moved by `dL`. */
function sheet({ white = 95, dL = 0, dark = 0, rows = DEVICE, mode = 'M1' as const } = {}): PatchSet {
  const lab = rows.map(([r, g, b]): [number, number, number] => {
    if (r + g + b === 3) return [white, 0, -2];
    if (r + g + b === 0) return [15 + dark, 0, 0];
    return [20 + 24 * (r + g + b) + dL, 40 * (r - g), 40 * (g - b)];
  });
  return {
    ids: rows.map((_, i) => String(i)),
    process: RGB,
    device: Float64Array.from(rows.flat()),
    xyz: Float64Array.from(lab.flatMap((own) => [...labToXyz(own, WHITE_D50_MEASURED)])),
    conditions: { mode },
    notes: [],
  };
}

describe('two papers', () => {
  it('of one white, depth and inks are alike', () => {
    expect(comparePapers(sheet(), sheet())).toMatchObject({ alike: true, white: 0, inks: 0, common: 27 });
  });

  // Near L* 95 a step of L* is about 0.6 ΔE00.
  it.each([
    ['white just within', { white: 95.38 }, true],
    ['white just beyond', { white: 95.46 }, false],
    ['inks just within', { dL: 1.1 }, true],
    ['inks just beyond', { dL: 1.75 }, false],
    ['dark just within', { dark: 2.9 }, true],
    ['dark just beyond', { dark: 3.1 }, false],
    ['darker just beyond', { dark: -3.1 }, false],
  ])('%s', (_, change, alike) => {
    expect(comparePapers(sheet(), sheet(change))?.alike).toBe(alike);
  });

  it('are not compared without common colours, a bare paper, or by other modes', () => {
    expect(comparePapers(sheet(), sheet({ rows: DEVICE.slice(-LEAST_COMMON) }))?.common).toBe(LEAST_COMMON);
    expect(comparePapers(sheet(), sheet({ rows: DEVICE.slice(1 - LEAST_COMMON) }))).toBeUndefined();
    expect(comparePapers(sheet(), sheet({ rows: DEVICE.slice(0, -1) }))).toBeUndefined();
    expect(comparePapers(sheet(), { ...sheet(), conditions: { mode: 'M0' } })).toBeUndefined();
    expect(comparePapers(sheet(), { ...sheet(), device: undefined })).toBeUndefined();
  });

  it('whose white scatters by itself may differ by more', () => {
    const noisy = (shift: number): PatchSet => {
      const papers = [94.2, 95.8, 94.2, 95.8].map((white) => sheet({ white: white + shift }));
      const plain = sheet({ white: 95 + shift });
      return {
        ...plain,
        ids: Array.from({ length: 31 }, (_, i) => String(i)),
        device: Float64Array.from([...(plain.device ?? []), ...Array<number>(12).fill(1)]),
        xyz: Float64Array.from([
          ...(plain.xyz ?? []),
          ...papers.flatMap(({ xyz }) => [...(xyz?.subarray(78, 81) ?? [])]),
        ]),
      };
    };
    expect(comparePapers(noisy(0), noisy(0.6))?.whiteLimit).toBeGreaterThan(0.5);
    expect(comparePapers(noisy(0), noisy(0.6))?.alike).toBe(true);
    expect(comparePapers(sheet(), sheet({ white: 95.6 }))?.alike).toBe(false);
  });
});
