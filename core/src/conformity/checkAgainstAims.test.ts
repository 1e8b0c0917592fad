import { CMYK, RGB } from '../device/process.ts';
import { describe, expect, it } from 'vitest';
import type { PatchSet } from '../cgats/patchSet.ts';
import { genericPressLab } from '../charts/genericPress.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { labToXyz, xyzToLab } from '../colour/xyzToLab.ts';
import { unwrap } from '../result.ts';
import { checkAgainstAims } from './checkAgainstAims.ts';
import type { Aims } from './aims.ts';
import { TOLERANCE_SETS } from './data/toleranceSets.ts';
import { substrateCorrected } from './substrateCorrected.ts';
import type { ToleranceSet } from './toleranceSet.ts';

const setOf = (id: string): ToleranceSet => TOLERANCE_SETS.find((set) => set.id === id) ?? TOLERANCE_SETS[0];
const PROOF = setOf('iso12647-7-proof');
const device = Float64Array.from(
  [
    [0, 0, 0, 0],
    [0, 0, 0, 0],
    ...[0, 1, 2, 3].map((ink) => [0, 1, 2, 3].map((other) => (other === ink ? 1 : 0))),
    ...[0.25, 0.5, 0.75].map((c, i) => [c, [0.19, 0.4, 0.66][i], [0.19, 0.4, 0.66][i], 0]),
    ...Array.from({ length: 30 }, (_, i) => [i / 30, ((7 * i) % 30) / 30, ((11 * i) % 30) / 30, (i % 3) / 5]),
  ].flat(),
);
const rows = device.length / 4;
const xyz = new Float64Array(rows * 3);
for (let i = 0; i < rows; i++) xyz.set(labToXyz(genericPressLab(device, 4 * i), WHITE_D50_MEASURED), 3 * i);
const aims: Aims = { device, xyz, conditions: { mode: 'M1' } };
const paper: [number, number, number] = [xyz[0], xyz[1], xyz[2]];
/** A warmer paper, printed just as the aims would be on it: about 3.5 ΔE00 off, past what a substrate may be. */
const warm: [number, number, number] = [paper[0] * 0.98, paper[1] * 0.98, paper[2] * 0.9];

const reading = (values: Float64Array, mode: 'M0' | 'M1' = 'M1'): PatchSet => ({
  ids: Array.from({ length: rows }, (_, i) => String(i)),
  process: CMYK,
  device,
  xyz: values,
  conditions: { mode },
  notes: [],
});

describe('a check against aims', () => {
  it('conforms where all is as asked, repeats averaged', () => {
    const other = xyz.slice();
    // Three readings of the paper: one as far above its aim as another below.
    for (let axis = 0; axis < 3; axis++) {
      other[axis] *= 1.01;
      other[3 + axis] *= 0.99;
    }
    const check = unwrap(checkAgainstAims(reading(other), aims, PROOF, false));
    expect(check.verdict).toBe('conforms');
    expect(check.pairs).toHaveLength(rows - 2);
    expect(Math.max(...check.deltaE)).toBeLessThan(1e-6);
  });

  it('on another paper fails, and with corrected aims fails in the substrate alone', () => {
    const printed = reading(substrateCorrected(xyz, paper, warm));
    const plain = unwrap(checkAgainstAims(printed, aims, PROOF, false));
    expect(plain.verdict).toBe('does-not-conform');
    expect(plain.white).toBeUndefined();
    const corrected = unwrap(checkAgainstAims(printed, aims, PROOF, true));
    expect(corrected.substrateCorrected).toBe(true);
    const [read, aim] = [warm, paper].map((white) => xyzToLab(white, WHITE_D50_MEASURED));
    read.forEach((value, axis) => expect(corrected.white?.read[axis]).toBeCloseTo(value, 6));
    aim.forEach((value, axis) => expect(corrected.white?.aim[axis]).toBeCloseTo(value, 6));
    expect(
      corrected.metrics.filter(({ verdict }) => verdict === 'does-not-conform').map(({ group }) => group),
    ).toEqual(['substrate']);
    const house = unwrap(checkAgainstAims(printed, aims, setOf('house-photo'), true));
    expect(house.verdict).toBe('conforms');
    expect(Math.max(...house.deltaE)).toBeLessThan(1e-6);
  });

  it('made in another mode is no plain conforms, but a failure stays one', () => {
    const check = unwrap(checkAgainstAims(reading(xyz, 'M0'), aims, PROOF, false));
    expect(check).toMatchObject({ verdict: 'not-judged', otherwise: ['read in M0, the aims are for M1'] });
    const off = xyz.map((value, i) => (i < 6 ? 0.8 * value : value));
    expect(unwrap(checkAgainstAims(reading(off, 'M0'), aims, PROOF, false)).verdict).toBe('does-not-conform');
  });

  it('is said where one side does not tell its mode, and compared where neither does', () => {
    const untold: Aims = { ...aims, conditions: {} };
    expect(unwrap(checkAgainstAims(reading(xyz), untold, PROOF, false))).toMatchObject({
      verdict: 'not-judged',
      otherwise: ['read in M1, the aims do not tell their mode'],
    });
    const silent = { ...reading(xyz), conditions: {} };
    expect(unwrap(checkAgainstAims(silent, aims, PROOF, false))).toMatchObject({
      verdict: 'not-judged',
      otherwise: ['the reading does not tell its mode, the aims are for M1'],
    });
    expect(unwrap(checkAgainstAims(silent, untold, PROOF, false))).toMatchObject({
      verdict: 'conforms',
      otherwise: [],
    });
  });

  it('says what it lacks', () => {
    const elsewhere = { ...aims, device: device.map((value) => (value === 0 ? 0.02 : value * 0.9)) };
    const none = checkAgainstAims(reading(xyz), elsewhere, PROOF, false);
    expect(none.ok ? '' : none.issues[0].found).toBe('none in common');
    const rgb = checkAgainstAims({ ...reading(xyz), process: RGB }, aims, PROOF, false);
    expect(rgb.ok ? '' : rgb.issues[0].path).toBe('reading');
  });
});
