import { describe, expect, it } from 'vitest';
import { controlWedge } from '../charts/controlWedge.ts';
import { genericPressLab } from '../charts/genericPress.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { labToXyz } from '../colour/xyzToLab.ts';
import { CMYK } from '../device/process.ts';
import { unwrap } from '../result.ts';
import type { Aims } from './aims.ts';
import { layBesideAims } from './checkAgainstAims.ts';
import { TOLERANCE_SETS } from './data/toleranceSets.ts';
import { predictConformity } from './predictConformity.ts';

const { device } = controlWedge('proof');
const [PROOF] = TOLERANCE_SETS;

/** A wedge whose colours are those of the aims, moved in lightness. */
function sheet(lighter: number) {
  const rows = device.length / 4;
  const lab = Array.from({ length: rows }, (_, i) => genericPressLab([...device.subarray(4 * i, 4 * i + 4)]));
  const xyzOf = (by: number): Float64Array =>
    Float64Array.from(lab.flatMap(([l, a, b]) => [...labToXyz([l + by, a, b], WHITE_D50_MEASURED)]));
  const aims: Aims = { conditions: { mode: 'M1' }, device, xyz: xyzOf(0) };
  return unwrap(
    layBesideAims(
      {
        ids: lab.map((_, i) => String(i + 1)),
        ...{ process: CMYK, device, xyz: xyzOf(lighter), notes: [] },
        conditions: { mode: 'M1' },
      },
      aims,
    ),
  );
}

const predicted = (lighter: number, reading: number, all: number, model = 0) =>
  unwrap(predictConformity(sheet(lighter), PROOF, false, { model, reading, sheet: all }));

describe('conformity before printing', () => {
  it('is certain where nothing is uncertain', () => {
    const exact = predicted(0, 0, 0);
    expect(exact.check.verdict).toBe('conforms');
    expect(exact.chance).toBe(1);
    expect(exact.meanBetween[1]).toBeCloseTo(0, 6);
    const off = predicted(8, 0, 0);
    expect(off.check.verdict).toBe('does-not-conform');
    expect(off.chance).toBe(0);
  });

  it('grows less certain with what is not known, and nearer to the limits', () => {
    const chances = [0.3, 1, 1.6, 3].map((reading) => predicted(0, reading, 0).chance);
    expect(chances[0]).toBe(1);
    for (let i = 1; i < chances.length; i++) expect(chances[i]).toBeLessThanOrEqual(chances[i - 1]);
    expect(chances[3]).toBeLessThan(0.2);
    // A sheet of L* 2 too light passes; one that varies from sheet to sheet does not always.
    expect(predicted(2, 0, 0).check.verdict).not.toBe('does-not-conform');
    const between = predicted(2, 0.2, 0.8).chance;
    expect(between).toBeGreaterThan(0.05);
    expect(between).toBeLessThan(0.95);
  });

  it('moves prints by as much as it is told', () => {
    const [low, high] = predicted(0, 0.8, 0).meanBetween;
    expect(low).toBeLessThan(0.8);
    expect(high).toBeGreaterThan(0.8);
    expect(high - low).toBeLessThan(0.3);
    // What all patches share moves the mean from print to print.
    const shared = predicted(0, 0, 0.8).meanBetween;
    expect(shared[1] - shared[0]).toBeGreaterThan(0.6);
    // Errors of a model are alike in neighbouring colours: less so than of a sheet, more so than of readings.
    const model = predicted(0, 0, 0, 0.8);
    expect(Math.abs(model.expectedMean - 0.8)).toBeLessThan(0.12);
    const width = model.meanBetween[1] - model.meanBetween[0];
    expect(width).toBeGreaterThan(1.3 * (high - low));
    expect(width).toBeLessThan(shared[1] - shared[0]);
  });
});
