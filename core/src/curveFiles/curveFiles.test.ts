import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readCgats } from '../cgats/readCgats.ts';
import { writeCgats } from '../cgats/writeCgats.ts';
import { readIcc } from '../icc/readIcc.ts';
import { writeIcc } from '../icc/writeIcc.ts';
import { issueText, unwrap } from '../result.ts';
import { evaluateToneCurve, sampleToneCurve, straightCurve } from '../tone/toneCurve.ts';
import { curvesFromCsv } from './curvesFromCsv.ts';
import { curvesToCgats } from './curvesToCgats.ts';
import { curvesToCsv } from './curvesToCsv.ts';
import { curvesToDeviceLink } from './curvesToDeviceLink.ts';
import { curvesToJson } from './curvesToJson.ts';

const CHANNELS = ['C', 'M', 'Y', 'K'];
const CURVES = [0.8, 1, 1.3, 1.7].map((power) => sampleToneCurve((t) => t ** power));

describe('CSV', () => {
  it.each([21, 256])('comes back from %i points', (points) => {
    const back = unwrap(curvesFromCsv(curvesToCsv(CURVES, CHANNELS, points)));
    expect(back.points).toBe(points);
    CHANNELS.forEach((channel, i) => {
      const curve = back.curves.get(channel);
      for (let t = 0; t <= 1; t += 0.05)
        expect(
          Math.abs(evaluateToneCurve(curve ?? straightCurve(), t) - evaluateToneCurve(CURVES[i], t)),
        ).toBeLessThan(points === 21 ? 0.012 : 0.0006);
    });
  });

  it('writes what it read without change', () => {
    const text = curvesToCsv(CURVES, CHANNELS, 257);
    const { curves } = unwrap(curvesFromCsv(text));
    expect(curvesToCsv([...curves.values()], CHANNELS, 257)).toBe(text);
  });

  it('reads semicolons with decimal commas, quotes and a byte-order mark', () => {
    const { curves } = unwrap(curvesFromCsv('\uFEFF"Input";"k"\n0;0\n50;40,5\n100;98\n'));
    expect(evaluateToneCurve(curves.get('K') ?? straightCurve(), 0.5)).toBeCloseTo(0.405, 6);
    expect(evaluateToneCurve(curves.get('K') ?? straightCurve(), 1)).toBeCloseTo(0.98, 6);
  });

  it.each([
    ['', 'line 1: found nothing'],
    ['0,1\n2,3\n4,5', 'line 1: found "0,1"'],
    ['input,C\n0,0\n', 'at least two rows'],
    ['input,C\n0,0\n50\n100,100', 'line 3: found 1, expected 2 values'],
    ['input,C\n0,0\n50,x\n100,100', 'line 3: C: found "x"'],
    ['input,C\n0,0\n50,140\n100,100', 'line 3: C: found "140"'],
    ['input,C\n0,0\n50,60\n100,40', 'line 4: C: found 40 after 60, expected a curve that never falls'],
    ['input,C\n0,0\n50,60\n50,70\n100,80', 'line 4: INPUT: found 50 after 50, expected rising inputs'],
    ['input,C\n5,0\n100,60', 'line 2: found 5, expected the first input to be 0'],
    ['input,C\n0,0\n90,60', 'line 3: found 90, expected the last input to be 100'],
    ['input,C,C\n0,0,0\n100,1,1', 'different names'],
  ])('says what is wrong with %j', (text, words) => {
    const result = curvesFromCsv(text);
    expect(result.ok ? '' : result.issues.map(issueText).join()).toContain(words);
  });

  it('never throws, whatever it is given', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 400, unit: 'binary' }), (text) => {
        const result = curvesFromCsv(text);
        expect(result.ok || result.issues.length > 0).toBe(true);
      }),
      { numRuns: 400, seed: 7 },
    );
    const big = `input,C\n${'0,0\n'.repeat(5000)}`;
    expect(curvesFromCsv(big).ok).toBe(false);
  });
});

describe('other files of curves', () => {
  it('CGATS holds inputs and outputs in per cent', () => {
    const [table] = unwrap(readCgats(writeCgats(curvesToCgats(CURVES, CHANNELS, 'Round 2', 21))));
    expect(table.columns.map(({ name }) => name)).toEqual([
      'SAMPLE_ID',
      'INPUT',
      'CURVE_C',
      'CURVE_M',
      'CURVE_Y',
      'CURVE_K',
    ]);
    expect(Number(table.columns[4].values[10])).toBeCloseTo(100 * evaluateToneCurve(CURVES[2], 0.5), 3);
    expect(table.rowCount).toBe(21);
  });

  it('JSON holds tone values 0 to 1', () => {
    const parsed = JSON.parse(curvesToJson(CURVES, CHANNELS, 'Round 2', 21)) as {
      inputs: number[];
      curves: Record<string, number[]>;
    };
    expect(parsed.inputs[10]).toBe(0.5);
    expect(parsed.curves.K[10]).toBeCloseTo(evaluateToneCurve(CURVES[3], 0.5), 6);
  });

  it.each([2, 4] as const)('a device link of version %i is written and read back', (version) => {
    const bytes = writeIcc(curvesToDeviceLink(CURVES, 'Round 2', 0, version));
    const profile = unwrap(readIcc(bytes));
    expect(profile.header).toMatchObject({ deviceClass: 'link', colourSpace: 'CMYK', pcs: 'CMYK' });
    expect(writeIcc(profile)).toEqual(bytes);
  });
});
